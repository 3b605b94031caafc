import { chromium } from '@playwright/test'
const origin='http://localhost:4310'
const KILN='0192f000-0010-7000-8000-000000000001',LOFT='0192f000-0020-7000-8000-000000000001',VAN='0192f000-0040-7000-8000-000000000001',KETCH='0192f000-0050-7000-8000-000000000001'
const ids={KILN,LOFT,VAN,KETCH,CROFT:'0192f000-0030-7000-8000-000000000001',HALL:'0192f000-0060-7000-8000-000000000001'}
const b=await chromium.launch({executablePath:'/usr/bin/chromium',args:['--no-sandbox','--disable-gpu']})
const c=await b.newContext({viewport:process.argv[2]==='roof'?{width:390,height:844}:{width:1280,height:800}})
const p=await c.newPage()
p.on('console',m=>m.type()==='error'&&console.log('console:',m.text().slice(0,300)))
p.on('pageerror',e=>console.log('pageerror:',e.message))
await p.request.post(origin+'/api/auth/demo',{data:{}})
if(process.argv[2]==='night') await p.addInitScript(()=>localStorage.setItem('mv-night','true'))
for(const arg of process.argv.slice(3)){ const [job,sec,name]=arg.split(':')
 await p.goto(job==='-'?`${origin}/${sec}`:`${origin}/job/${ids[job]}/${sec}`); await p.waitForTimeout(2500)
 await p.screenshot({path:`/tmp/shot-${name}.png`}) }
await b.close()
