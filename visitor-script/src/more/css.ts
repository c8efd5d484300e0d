/** Styles of the parts that come later. */
export const MORE_CSS = `
legend{display:block;margin-bottom:4px;padding:0;font-weight:600}
fieldset{margin:0;padding:0;border:0;min-width:0}
select{width:100%;min-height:44px;padding:9px 12px;border:1px solid var(--field-border);border-radius:min(8px,var(--round));background:var(--field);color:var(--field-text);font:inherit}
input[type=radio]{flex:none;width:22px;height:22px;min-height:0;margin:1px 0 0;accent-color:var(--button)}
[data-stance=bar]{inset-inline:0;width:100%;max-width:100%;inset-block:auto;margin:0}
[data-stance=bar][data-place=top]{top:var(--from-top,0)}
[data-stance=bar][data-place=bottom]{bottom:var(--from-bottom,0)}
[data-stance=bar] .body{width:min(var(--w),100%);margin:0 auto;padding-inline:calc(var(--pad) + 16px) calc(var(--pad) + var(--sign))}
[data-stance=bar] form{display:flex;flex-wrap:wrap;gap:4px 18px;align-items:center}
[data-stance=bar] form>*{flex:1 1 auto}
[data-stance=bar] h2,[data-stance=bar] p,[data-stance=bar] .text>:last-child{margin:0}
[data-stance=bar] .button{width:auto;margin:0;min-height:40px;padding-block:6px}
.beside-it>.body{flex:1 1 0}
.button{font-family:var(--button-font);font-size:var(--button-size)}
.button:not(.plain){background:var(--fill)}
.button:not(.plain):hover{background:var(--fill-hover)}
.card>.behind{opacity:var(--solid)}
.code .button{width:auto;margin:0}
.cross.at-start{inset-inline:8px auto}
.has-cross h2:first-child,.has-cross .text:first-child,.progress{padding-inline-end:var(--clear,0)}
.has-cross.starts h2:first-child,.has-cross.starts .text:first-child,.starts .progress{padding-inline:var(--clear,0) 0}
.to-middle{text-align:center}.to-end{text-align:end}
.row{display:flex;flex-wrap:wrap;gap:0 12px;align-items:flex-end}
.field>.row{gap:8px}
.row>*{flex:var(--share) 1 0;min-width:min(100%,118px)}
.row>.field+.button,.row>.button{margin-bottom:12px}
[data-stance=bar] .row{align-items:flex-end;flex:1 1 100%;gap:6px 12px}
[data-stance=bar] .row:not(:has(.field)){align-items:center}
[data-stance=bar] .row>h2{align-self:center}
[data-stance=bar] .field{margin:0}
[data-stance=bar] .row>.button{margin:0;min-height:44px}
[data-stance=bar] .above,[data-stance=bar] .beside{display:none}
[data-stance=bar] .row>h2,[data-stance=bar] .row>.text{min-width:min(100%,150px)}
[data-stance=bar].has-cross h2:first-child,[data-stance=bar].has-cross .text:first-child{padding-inline:0}
[data-stance=bar].worded .body{padding-inline-end:calc(var(--pad) + var(--clear,0px) + 8px)}
[data-stance=bar].worded.starts .body{padding-inline:calc(var(--pad) + var(--clear,0px) + 8px) calc(var(--pad) + 16px)}
@media (max-width:600px){
[data-stance=bar].worded .body,[data-stance=bar].worded.starts .body{padding-block-start:calc(var(--sign) + 8px);padding-inline:calc(var(--pad) + 4px)}
}
@keyframes grow{from{opacity:0;scale:.86}}
@media (prefers-reduced-motion:no-preference){.grow{animation:grow .6s cubic-bezier(.2,.8,.2,1)}}
.backdrop>*{width:100%;height:100%;object-fit:cover;opacity:var(--dim)}
.backdrop:not(:empty){background:none}
.art{position:relative;flex:none;overflow:hidden;line-height:0}
.art img,.art video{display:block;width:100%;height:100%;object-fit:cover}
.art::after{content:"";position:absolute;inset:0;background:var(--wash-colour,#000);opacity:var(--wash,0);pointer-events:none}
.above{height:var(--art,180px)}
.behind{position:absolute;inset:0}
.beside-it{flex-direction:row}
.beside{width:36%;min-height:100%}
.beside img{position:absolute;inset:0}
.inline-art{margin:0 0 12px;border-radius:calc(var(--round)/2)}
.inline-art:not([style*=height]) img{height:auto}
.art.whole img{object-fit:contain}
[data-stance=bar] .inline-art{margin:0;align-self:center}
.code{display:flex;gap:10px;align-items:center;margin:10px 0;padding:10px 14px;border:2px dashed currentColor;border-radius:8px}
.code output{flex:1;font-size:1.2em;font-weight:700;letter-spacing:.06em}
hr{border:0;border-top:1px solid currentColor;opacity:.3;margin:14px 0}
.progress{display:flex;gap:4px;margin:0 0 14px;}
.progress i{flex:1;height:4px;border-radius:2px;background:currentColor;opacity:.25}
.progress i.done{opacity:1}
[data-stance=side-panel],[data-stance=full-page]{overscroll-behavior:contain}
[data-stance=card].fixed{inset-block:calc(var(--edge) + var(--above,0px)) calc(var(--edge) + var(--below,0px));max-height:calc(100dvh - 2*var(--edge) - var(--above,0px) - var(--below,0px))}
[data-stance=side-panel]{inset:0 0 0 auto;margin:0;height:100dvh;max-height:none}
[data-stance=side-panel][data-place=left]{inset:0 auto 0 0}
[data-stance=full-page]{inset:0;margin:0;width:100vw;height:100dvh;max-height:none}
[data-stance=full-page] .body{width:min(var(--w),100%);margin:0 auto}
.dock{position:fixed;inset:calc(var(--edge-y) + var(--above,0px)) var(--edge) calc(var(--edge-y) + var(--below,0px));z-index:2147483000;display:flex;flex-direction:column-reverse;align-items:flex-end;gap:10px;pointer-events:none;font:var(--weight) var(--size)/1.5 var(--font)}
.dock[data-place^=top]{flex-direction:column}
.dock{direction:ltr}
:host(:is([data-intavo-touchpoint=inline],[data-intavo-touchpoint=in-page])) .card{min-width:min(180px,calc(100vw - 40px))}
:host([dir=rtl]) .dock>*{direction:rtl}
:host([dir=rtl]) :is([type=email],[type=tel]){direction:ltr;text-align:right}
.dock[data-place$=left]{align-items:flex-start}
.dock[data-place=left],.dock[data-place=right]{justify-content:center}
.dock[data-place=top],.dock[data-place=bottom]{align-items:center}
.dock>*{pointer-events:auto}
.dock>.card{flex:0 1 auto;margin:0;width:min(var(--w),100%)}
.face{width:auto;max-width:100%;margin:0;padding:10px 18px;border-radius:99px;box-shadow:var(--shadow)}
.face{display:inline-flex;align-items:center;gap:8px;min-height:var(--face,44px);font-size:calc(var(--button-size)*min(1.5,max(1,var(--face,44px)/60px)))}
@keyframes nudge{20%,60%{transform:translateY(-6px)}40%,80%{transform:translateY(2px)}}
@media (prefers-reduced-motion:no-preference){.face.nudged{animation:nudge .7s ease-in-out}}
@media (forced-colors:active){.face,.greet,.strip,.over{border:1px solid}}
.face.rounded{border-radius:10px}
.face.round{width:var(--face,44px);height:var(--face,44px);padding:0;justify-content:center;overflow:hidden;border-radius:50%}
.face.round>span:last-child:not(:only-child){position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}
.face.tab{margin-inline:calc(var(--edge)*-1);border-radius:10px 0 0 10px}
.dock[data-place$=left] .face.tab{border-radius:0 10px 10px 0}
.face img{width:calc(var(--face,44px)*.6);height:calc(var(--face,44px)*.6);object-fit:contain}
.face img.fills{width:var(--face,44px);height:var(--face,44px);margin:-10px 0 -10px -18px;object-fit:cover;border-radius:inherit}
.face.round img.fills{width:100%;height:100%;margin:0}
.stack{flex-direction:column;flex-wrap:nowrap!important;margin:0!important}
.greet{display:flex;gap:4px;align-items:flex-start;max-width:min(300px,100%);padding:10px;border-radius:14px;background:var(--card-solid,var(--card));color:var(--text);box-shadow:var(--shadow)}
.greet .words{display:flex;gap:10px;align-items:center;border:0;padding:0;background:none;color:inherit;font:inherit;text-align:start}
.greet .who{flex:none;width:40px;height:40px}
.greet .shut{flex:none;width:24px;height:24px;border:0;background:none;color:inherit;font-size:18px;line-height:1}
.greet[hidden],.stack[hidden],.face[hidden]{display:none}
.strip{display:none}
@media (max-width:600px){
.strip{position:fixed;inset:auto 0 0;z-index:2147483000;display:flex;margin:0;padding:0;list-style:none;background:var(--card);color:var(--text);box-shadow:var(--shadow);font:var(--weight) var(--size)/1.3 var(--font)}
.strip .way{flex:1}
.strip .way>.to{flex-direction:column;gap:2px;min-height:56px;padding:6px 4px;border:0;border-radius:0;text-align:center;font-size:.8em;justify-content:flex-start}
.strip .way>.to[aria-expanded=true]{font-weight:700}
.strip .over{position:absolute;inset:auto 0 100%;max-height:60vh;overflow:auto;padding:12px 16px;background:var(--card);box-shadow:var(--shadow)}
.strip .over p{margin:0 0 10px}
.strip:has(.over:not([hidden])){z-index:2147483001}
.strip .icon{width:30px;height:30px}
.with-strip .face,.with-strip .greet{display:none}
}
.choices{display:grid;gap:8px;margin:10px 0}
.choices .button{margin:0}
.scores{display:flex;flex-wrap:wrap;gap:6px;margin:8px 0 4px}
.scores button{flex:1 1 34px;min-width:34px;min-height:44px;padding:0;border:1px solid currentColor;border-radius:8px;background:none;color:inherit;font-weight:700}
.scores button[aria-checked=true]{background:var(--button);color:var(--button-text);border-color:var(--button)}
.ends{display:flex;justify-content:space-between;gap:12px;font-size:.86em;opacity:.85}
.option{display:flex;gap:10px;margin:6px 0;font-weight:400}
.to-middle.price,.to-middle.countdown{justify-content:center}.to-end.price,.to-end.countdown{justify-content:flex-end}
.price{display:flex;flex-wrap:wrap;gap:4px 12px;align-items:baseline;margin:8px 0}
.price strong{font:var(--head-weight) calc(var(--head-size)*1.3)/1.1 var(--head-font)}
.price s{opacity:.8}
.price .saving{padding:2px 10px;border-radius:99px;background:var(--button);color:var(--button-text);font-weight:700;font-size:.9em}
.countdown{display:flex;flex-wrap:wrap;gap:6px 10px;align-items:center;margin:8px 0}
.countdown time{display:flex;gap:clamp(3px,1.2vw,6px);font-size:min(1em,5vw);white-space:nowrap;font-variant-numeric:tabular-nums}
.countdown b{display:inline-block;min-width:2.1em;padding:2px 6px;border:1px solid currentColor;border-radius:6px;text-align:center}
.countdown small{font-weight:400;font-size:.75em}
[data-stance=bar] .row>.countdown{flex-shrink:0;min-width:min-content}
.links{display:grid;gap:6px;margin:10px 0;padding:0;list-style:none}
.links.two{grid-template-columns:repeat(auto-fit,minmax(min(100%,140px),1fr))}
.links>li>*{display:block;width:100%;padding:11px 14px;border:1px solid currentColor;border-radius:8px;background:none;color:inherit;text-align:start;text-decoration:none}
.links>li>*:hover{background:rgba(127,127,127,.15)}
.ways{display:grid;gap:8px;margin:10px 0;padding:0;list-style:none}
.ways.tiles{grid-template-columns:repeat(auto-fit,minmax(min(100%,120px),1fr))}
.ways.signs{display:flex;flex-wrap:wrap;gap:10px}
.way>.to{display:flex;gap:12px;align-items:center;width:100%;min-height:48px;padding:9px 12px;border:1px solid color-mix(in srgb,currentColor 35%,transparent);border-radius:10px;background:none;color:inherit;text-align:start;text-decoration:none}
.way>.to:hover{background:rgba(127,127,127,.12)}
.tiles .to{flex-direction:column;text-align:center;height:100%}
.signs .to{width:52px;height:52px;min-height:0;padding:0;border:0;border-radius:50%;justify-content:center}
.icon{display:grid;place-items:center;flex:none;width:38px;height:38px;border-radius:50%;background:var(--way,var(--button));color:var(--button-text)}
.signs .icon{width:52px;height:52px}
.icon img,.who{width:100%;height:100%;border-radius:50%;object-fit:cover}
.closed .icon{background:none;color:inherit;box-shadow:inset 0 0 0 2px var(--way,currentColor)}
.said{display:grid;min-width:0}
.said small{opacity:.85;font-weight:400}
.people{display:grid;gap:4px;margin:6px 0 0;padding:0 0 0 12px;list-style:none}
.person{display:flex;gap:10px;align-items:center;padding:6px 8px;border-radius:8px;color:inherit;text-decoration:none}
.person:hover{background:rgba(127,127,127,.12)}
.person.away{opacity:.7}
.person .who{display:grid;place-items:center;flex:none;width:34px;height:34px;background:rgba(127,127,127,.25);font-weight:700}
.asking{display:grid;gap:8px;padding:8px 0 0}
.talk{display:grid;gap:8px}
.talk [hidden]{display:none}
.said-log{display:flex;flex-direction:column;gap:6px;max-height:min(46vh,340px);margin:0;padding:2px;overflow-y:auto;list-style:none;overscroll-behavior:contain}
.said-log li{display:grid;max-width:86%;align-self:flex-start}
.said-log li.them{align-self:flex-end}
.said-log span{padding:8px 12px;border-radius:12px;background:color-mix(in srgb,currentColor 9%,transparent);white-space:pre-wrap;overflow-wrap:anywhere}
.said-log .them span{background:var(--button);color:var(--button-text)}
.said-log [data-out] span{opacity:.6}
.said-log a{display:grid;gap:4px;color:inherit}.said-log img{max-width:180px;max-height:140px;border-radius:6px}
.said-log small{opacity:.8;font-size:.8em}
.talk .choices{display:flex;flex-wrap:wrap;gap:6px;margin:0}
.talk .choices:empty{display:none}
.talk .choices .button{width:auto;padding:7px 14px}
.say{display:flex;gap:8px;align-items:flex-end}
.say textarea{flex:1;min-height:44px;max-height:120px;resize:none;field-sizing:content}
.say .button{width:auto;margin:0}
.face[data-count]::after{content:attr(data-count);display:inline-block;min-width:1.5em;margin-inline-start:8px;padding:0 5px;border-radius:99px;background:var(--button-text);color:var(--button);font-size:.85em;text-align:center}
.share{display:grid;gap:6px;margin:10px 0}
.share .button{margin:0}
.hours{margin:8px 0}
.hours p{margin:0 0 6px;font-weight:700}
.hours table{border-collapse:collapse;width:100%}
.hours th{padding:3px 16px 3px 0;text-align:start;font-weight:400;white-space:nowrap}
.hours td{padding:3px 0;font-variant-numeric:tabular-nums}
.hours tr:first-child{font-weight:700}.hours tr:first-child th{font-weight:700}
.questions details{padding:8px 0;border-top:1px solid rgba(127,127,127,.4)}
.questions summary{cursor:pointer;font-weight:600}
.questions .answer{margin-top:6px}
.questions .answer img{max-width:100%}
.questions h3{margin:12px 0 4px;font-size:1em}
.helped{display:flex;gap:8px;align-items:center;font-size:.9em}
.helped button{padding:4px 12px;border:1px solid currentColor;border-radius:6px;background:none;color:inherit}
.video{position:relative;margin:0 0 12px;border-radius:calc(var(--round)/2);overflow:hidden;line-height:0}
.video video{width:100%;height:auto}
.markup{display:block;width:100%;border:0}
@media (max-width:600px){
.beside-it>.body{flex:1 0 auto}
.beside-it{flex-direction:column}
.beside{width:auto;min-height:0;height:var(--art,150px)}
[data-stance=side-panel]{width:100vw}
}
`
