/** The styles of everything a visitor sees; values of the look come in as custom properties. */
export const CSS = `
:host{all:initial!important}
:host(:not([data-intavo-touchpoint=inline],[data-intavo-touchpoint=in-page],[data-intavo-touchpoint=stage])){position:absolute!important}
@media print{:host{display:none!important}}
*{box-sizing:border-box}
.card{position:relative;display:flex;flex-direction:column;width:min(var(--w),100%);max-width:none;max-height:none;height:var(--h);margin:0 auto;padding:0;border:var(--line) solid var(--border);border-radius:var(--round);background:var(--card);color:var(--text);font:var(--weight) var(--size)/1.5 var(--font);overflow:auto;overflow-wrap:anywhere;box-shadow:var(--shadow);outline:1px solid #0000;text-align:start}
.fixed{position:fixed;inset:var(--edge);z-index:2147483000;width:min(var(--w),calc(100vw - 2*var(--edge)));max-height:calc(100dvh - 2*var(--edge));margin:auto}
.backdrop+.card{z-index:2147483001}
.fixed[data-height=content]{height:fit-content}
dialog:not([open]){display:none}
dialog::backdrop{background:none}
.backdrop{position:fixed;inset:0;z-index:2147483001;background:var(--backdrop);overflow:hidden}
[data-place^=top]{margin-top:0}[data-place^=bottom]{margin-bottom:0}[data-place$=left]{margin-left:0}[data-place$=right]{margin-right:0}
.body{position:relative;flex:1 0 auto;display:flex;flex-direction:column;justify-content:var(--content);padding:var(--pad);min-width:0}
form{display:flow-root;width:100%}
h2{white-space:pre-line;margin:0 0 8px;font:var(--head-weight) var(--head-size)/1.2 var(--head-font);color:var(--headline)}
h2:focus,.card:focus{outline-color:#0000}
.small{font-size:.86em}h2.small{font-size:calc(var(--head-size)*.72)}h2.medium{font-size:calc(var(--head-size)*.86)}.text.large{font-size:1.15em}
.has-cross h2:first-child,.has-cross .text:first-child{padding-inline-end:calc(var(--sign) - 4px)}
p{margin:0 0 10px}
.text>:last-child{margin-bottom:10px}
.text a{color:inherit}
.field{margin:12px 0}
label{display:block;margin-bottom:4px;font-weight:600}
.quiet{font-weight:400;opacity:.85;font-size:.9em}
.tick{display:flex;gap:10px;font-weight:400}
input,textarea{width:100%;min-height:44px;padding:9px 12px;border:1px solid var(--field-border);border-radius:min(8px,var(--round));background:var(--field);color:var(--field-text);font:inherit}
textarea{min-height:96px;resize:vertical}
::placeholder{color:inherit;opacity:.7}
input[type=checkbox]{flex:none;width:22px;height:22px;min-height:0;margin:1px 0 0;accent-color:var(--button)}
[aria-invalid=true]{border-color:#a5321d;border-width:2px}
button{font:inherit;cursor:pointer}
.button{display:flex;align-items:center;justify-content:center;gap:8px;width:100%;min-height:46px;margin-top:10px;padding:10px 16px;border:1px solid #0000;border-radius:min(10px,var(--round));background:var(--button);color:var(--button-text);font-weight:700;text-align:center;text-decoration:none;white-space:normal}
.button:hover{background:var(--button-hover)}
.button[aria-disabled=true]{opacity:.7;cursor:default}
.button.plain{background:none;color:inherit;border-color:currentColor;font-weight:600}
:focus-visible{outline:3px solid var(--text);outline-offset:2px}
.error{margin:4px 0 0;color:#a5321d;background:#fff;padding:2px 6px;border-radius:4px;font-weight:600;font-size:.94em}
.notice,.reply{margin:12px 0;padding:10px 14px;border-inline-start:4px solid var(--button)}
.reply p{margin:2px 0 0}
.trap{position:absolute;width:1px;height:1px;overflow:hidden;opacity:0}
.cross{position:absolute;top:8px;z-index:2;display:grid;place-items:center;inset-inline-end:8px;min-width:var(--sign);height:var(--sign);padding:0 6px;border:0;border-radius:99px;background:none;color:var(--cross);line-height:1}
.cross:hover{background:#7f7f7f40}
.cross:empty::before,.cross:empty::after{content:"";grid-area:1/1;width:calc(var(--sign)*.5);border-top:2px solid;rotate:45deg}
.cross:empty::after{rotate:-45deg}
[hidden]{display:none!important}
@media (prefers-reduced-motion:no-preference){
.rise{animation:rise .6s cubic-bezier(.2,.8,.2,1)}.slide{animation:slide .6s cubic-bezier(.2,.8,.2,1)}.fade{animation:fade .6s}
.going{animation-direction:reverse;animation-duration:.4s;animation-fill-mode:forwards}
}
@keyframes rise{from{opacity:0;translate:0 24px}}
@keyframes fade{from{opacity:0}}
@keyframes slide{from{translate:var(--slide)}}
@media (max-width:600px){
.not-phone{display:none!important}
}
@media (min-width:601px){.not-desktop{display:none!important}}
`
