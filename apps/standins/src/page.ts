/** HTML shared by the pages of the stand-ins: plain, without script. */
export function htmlText(text: string): string {
  return text.replace(/[&<>"']/g, (char) => `&#${char.charCodeAt(0)};`);
}

const STYLE = `body{margin:0;background:#E6EAE7;color:#17252B;font:15px/1.45 system-ui,sans-serif}header{background:#51626A;color:#fff;padding:.8rem 1.2rem}
header b{font-size:1.1rem}main{padding:1.2rem;display:grid;gap:1.2rem}a{color:#0F766B}table{border-collapse:collapse;background:#fff;width:100%}th,td{text-align:left;padding:.45rem .8rem;border-bottom:1px solid #D3DAD6;vertical-align:top}
.sheet{background:#fff;border:1px solid #D3DAD6;border-radius:4px;padding:1rem}button{font:inherit;padding:.4rem .8rem;border:1px solid #17252B;border-radius:4px;background:#fff;cursor:pointer}input{font:inherit;padding:.4rem .6rem;border:1px solid #51626A;border-radius:4px}
iframe{width:100%;height:60vh;border:1px solid #D3DAD6;background:#fff}form.row{display:flex;gap:.5rem;flex-wrap:wrap;margin:.5rem 0}.phones{display:grid;grid-template-columns:repeat(auto-fill,minmax(19rem,1fr));gap:1rem}
.said{margin:.3rem 0;padding:.5rem .7rem;border-radius:4px;white-space:pre-wrap;overflow-wrap:anywhere}.us{background:#E6EAE7}.them{background:#17252B;color:#fff;margin-left:2rem}small{color:#51626A}pre{white-space:pre-wrap;overflow-wrap:anywhere}`;

export function standinPage(title: string, note: string, body: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${htmlText(title)}</title><style>${STYLE}</style></head>
<body><header><b>${htmlText(title)}</b> · ${htmlText(note)}</header><main>${body}</main></body></html>`;
}
