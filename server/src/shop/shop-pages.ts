import { hashSource } from './identity.js';

const style = `
*{box-sizing:border-box}
body{margin:0;background:#f4f1e8;color:#1c2226;font:18px/1.5 "Atkinson Hyperlegible Next",system-ui,sans-serif}
main{max-width:34rem;margin:0 auto;padding:1.5rem}
h1{font-size:1.5rem;line-height:1.2;border-bottom:6px solid #f4b400;padding-bottom:.5rem}
label{display:block;font-weight:700;margin:1rem 0 .25rem}
input{width:100%;font:inherit;font-size:1.75rem;letter-spacing:.12em;text-transform:uppercase;padding:.5rem;border:2px solid #1c2226;background:#fff}
button,.go{display:block;width:100%;margin:1rem 0;padding:1rem;font:inherit;font-weight:700;text-align:center;text-decoration:none;background:#1c2226;color:#fff;border:0}
li{margin:.5rem 0}
code{display:block;font-family:ui-monospace,monospace;font-size:.95rem;background:#fff;padding:.75rem;overflow-wrap:anywhere}
[role=alert]{border-left:6px solid #1c2226;background:#ffe9a8;padding:.75rem}
`;
/** The code comes behind the # of the address, which is never sent anywhere. */
const script = `const take=()=>{const c=location.hash.slice(1);if(c){document.querySelector('input').value=c;history.replaceState(null,'','/admit')}};take();addEventListener('hashchange',take)`;

const escaped = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);
const page = (title: string, body: string) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>${title}</title><style>${style}</style></head><body><main>${body}</main></body></html>`;

/** What these pages may do: their own style and script, and send their own form. */
export const shopPageRules = `default-src 'none'; style-src ${hashSource(style)}; script-src ${hashSource(script)}; form-action 'self'; base-uri 'none'; frame-ancestors 'none'`;

/** All that a device which is not let in gets to see. @param fault why the last code was not taken */
export const admissionPage = (fault: string | null): string =>
  page(
    'Yellow Pane: let this device in',
    `<h1>Let this device in</h1>
<p>At the bench, open <b>Phones</b>, make a code for this device and type it here.</p>
${fault ? `<p role="alert">${escaped(fault)}</p>` : ''}
<form method="post" action="/admit"><label for="code">Code of the bench</label><input id="code" name="code" required maxlength="20" autocomplete="off" autocapitalize="characters" spellcheck="false"><button>Let me in</button></form>
<p>It works once, for ten minutes. This browser then stays let in until somebody takes it out at the bench.</p>
<script>${script}</script>`,
  );

/** How a device comes to trust this bench; goes out without encryption, so it holds nothing secret. */
export const setUpPage = (fingerprint: string, url: string): string =>
  page(
    'Yellow Pane: certificate of the bench',
    `<h1>Once on each phone: the certificate of the bench</h1>
<p>With it, this phone knows your own bench again and speaks to it so that nobody in the network can listen. It vouches for addresses of private networks only, never for a site of the internet.</p>
<a class="go" href="/bench.crt" download="yellow-pane-bench.crt">Fetch the certificate</a>
<ol>
<li>Open the file, or look in the phone’s settings under security for <b>install a certificate</b>, as an <b>authority</b> (CA). Some phones show it as a downloaded profile first.</li>
<li>Before you agree, compare its SHA-256 fingerprint with the one on the bench’s screen. If they differ, stop: somebody stands between.<code>${escaped(fingerprint)}</code></li>
<li>Some phones then have a second switch, near the settings’ <b>about</b> page: full trust for this certificate. Turn it on.</li>
</ol>
<p>Then scan the second picture at the bench, or go on here:</p>
<a class="go" href="${escaped(url)}/admit">To the bench</a>`,
  );
