/** `npm run build`: builds where there is no build of the present sources, and says where it lies. */
import { ensureBuild, ensureNodeModules, say } from './lib/system.mjs'

ensureNodeModules()
say(await ensureBuild())
