/** The customer's page has its style within it: nothing is fetched. */
export const STYLE = `
:root {
  --paper: #f4f1ea;
  --sheet: #fbf9f4;
  --ink: #191d22;
  --soft: #5d636b;
  --line: #cfc9bb;
  --sky: #e7ecee;
  --ground: #ddd6c6;
  --beam: #a9c3d9;
  --met: #27633f;
  --short: #b3341a;
  --agreed: #e2c04f;
  --link: #1d5c8f;
}
* {
  box-sizing: border-box;
}
body {
  margin: 0;
  background: var(--paper);
  color: var(--ink);
  font:
    16px/1.45 system-ui,
    sans-serif;
  max-width: 560px;
  margin-inline: auto;
}
header,
section {
  padding: 14px 16px;
}
header {
  background: var(--sheet);
  border-bottom: 1px solid var(--line);
}
h1 {
  font-size: 22px;
  line-height: 1.25;
  margin: 0;
}
h2 {
  font-size: 18px;
  margin: 0 0 8px;
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 12px;
  flex-wrap: wrap;
}
section {
  border-top: 1px solid var(--line);
}
p {
  margin: 0;
}
.soft {
  color: var(--soft);
  font-weight: 400;
  font-size: 15px;
}
figure {
  margin: 0;
  background: var(--sky);
}
figure svg {
  display: block;
  width: 100%;
  height: auto;
}
.now {
  display: grid;
  grid-template-columns: auto auto 1fr;
  gap: 0 18px;
  align-items: end;
}
.big {
  font-size: 64px;
  font-weight: 700;
  line-height: 1;
}
.was {
  font-size: 34px;
  color: var(--soft);
  line-height: 1.1;
}
.bar {
  margin: 14px 0 2px;
}
ul,
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
ol {
  counter-reset: n;
}
ol li {
  counter-increment: n;
  padding: 3px 0 3px 34px;
  position: relative;
}
ol li:before {
  content: counter(n);
  position: absolute;
  left: 0;
  top: 3px;
  width: 22px;
  height: 22px;
  border-radius: 50%;
  background: var(--ink);
  color: var(--sheet);
  text-align: center;
  font-size: 14px;
  line-height: 22px;
}
.met {
  color: var(--met);
  font-weight: 600;
}
.not {
  color: var(--short);
  font-weight: 600;
}
dl {
  display: grid;
  grid-template-columns: minmax(92px, auto) 1fr;
  gap: 4px 16px;
  margin: 0;
}
dt {
  font-weight: 700;
}
dd {
  margin: 0;
}
.last {
  font-weight: 700;
  padding-left: 34px;
}
a {
  color: var(--link);
}
footer {
  background: var(--ink);
  color: var(--sheet);
  padding: 14px 16px 22px;
}
footer .call {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  flex-wrap: wrap;
  background: var(--sheet);
  color: var(--ink);
  padding: 14px;
  font-weight: 700;
  font-size: 18px;
  text-decoration: none;
  min-height: 56px;
  align-items: center;
}
footer p {
  padding-top: 10px;
  font-size: 15px;
}
@media print {
  body {
    max-width: none;
    background: #fff;
  }
  section,
  header {
    break-inside: avoid;
  }
  footer {
    background: #fff;
    color: #000;
    border-top: 2px solid #000;
  }
}
`
