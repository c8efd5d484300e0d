/** The styles of everything a visitor sees; colours come in as custom properties. */
export const CSS = `
:host{all:initial}
*{box-sizing:border-box}
.card{width:min(var(--w),calc(100vw - 32px));max-width:none;max-height:calc(100vh - 32px);max-height:calc(100dvh - 32px);margin:auto;padding:28px;border:0;border-radius:14px;background:var(--card);color:var(--text);font:16px/1.5 var(--font,system-ui,sans-serif);overflow:auto;overflow-wrap:anywhere;overscroll-behavior:contain;box-shadow:0 18px 60px rgba(0,0,0,.3);text-align:start}
.card:focus{outline:0}
dialog.card{position:fixed;inset:0;animation:rise .35s ease-out}
dialog.card::backdrop{background:rgba(10,18,20,.5)}
.backdrop{position:fixed;inset:0;background:rgba(10,18,20,.5)}
dialog.card[data-place=top]{margin-top:16px}
dialog.card[data-place=bottom]{margin-bottom:16px}
.inline{margin:0 auto;box-shadow:none;max-height:none;width:min(var(--w),100%)}
h2{margin:0 0 8px;font-size:1.5em;line-height:1.2;font-weight:700}
h2:focus{outline:0}
.cross~form h2:first-child{padding-inline-end:32px}
p{margin:0 0 10px}
.text a{color:inherit}
.field{margin:14px 0}
label{display:block;margin-bottom:4px;font-weight:600}
.quiet{font-weight:400;opacity:.85;font-size:.9em}
.tick{display:flex;gap:10px;font-weight:400}
input,textarea{width:100%;padding:10px 12px;border:1px solid #6b777a;border-radius:8px;background:#fff;color:#1a2326;font:inherit}
textarea{min-height:96px;resize:vertical}
input[type=checkbox]{flex:none;width:22px;height:22px;margin:1px 0 0;accent-color:var(--button)}
[aria-invalid=true]{border-color:#a5321d;border-width:2px}
button{font:inherit;cursor:pointer}
.button{display:block;width:100%;min-height:46px;margin-top:12px;padding:10px 16px;border:0;border-radius:8px;background:var(--button);color:var(--button-text);font-weight:700;white-space:normal}
.button[aria-disabled=true]{opacity:.7;cursor:default}
.button.plain{background:none;color:inherit;border:1px solid currentColor;font-weight:600}
:focus-visible{outline:3px solid var(--text);outline-offset:2px}
.error{margin:4px 0 0;color:#a5321d;background:#fff;padding:2px 6px;border-radius:4px;font-weight:600;font-size:.94em}
.notice,.reply{margin:12px 0;padding:10px 14px;border-inline-start:4px solid var(--button)}
.reply p{margin:2px 0 0}
.cross{position:absolute;top:10px;inset-inline-end:10px;width:36px;height:36px;padding:0;border:0;border-radius:50%;background:none;color:inherit;line-height:0}
.cross:hover{background:rgba(127,127,127,.2)}
.cross svg{width:18px;height:18px}
[hidden]{display:none}
@keyframes rise{from{opacity:0;transform:translateY(20px)}}
@media (prefers-reduced-motion:reduce){dialog.card{animation:none}}
@media (max-width:600px){
.not-phone{display:none!important}
.card{padding:22px 18px}
dialog.card{width:calc(100vw - 16px);max-height:calc(100vh - 24px);max-height:calc(100dvh - 24px)}
dialog.card[data-phone=bottom]{margin:auto auto 8px}
dialog.card[data-phone=top]{margin:8px auto auto}
dialog.card[data-phone=middle]{margin:auto}
}
@media (min-width:601px){.not-desktop{display:none!important}}
`
