/** Sites whose sign-in only works in a browser: drawn by scripts, sent as JSON, kept beside cookies, in frames and shadows. */
import { randomBytes } from "node:crypto";
import { type Account, inside, page, router, Sessions, type Site } from "./site";

interface Drawn {
  host: string;
  name: string;
  signInPath: string;
  account: Account;
  text: string;
}

const text = (name: string) => name.replace(/[<&"]/g, "");

/** Drawn by a framework; JSON goes out with a token that stands in the page's head; the session is a cookie. */
export function frameworkSite({ host, name, signInPath, account, text: says }: Drawn): Site {
  const sessions = new Sessions("fw");
  const tokens = new Set<string>();
  const routes = router();
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/board" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    const token = randomBytes(12).toString("hex");
    tokens.add(token);
    const script = `const h=(t,p={},...k)=>{const e=document.createElement(t);for(const n in p)n.startsWith("on")?e.addEventListener(n.slice(2),p[n]):e.setAttribute(n,p[n]);e.append(...k);return e};const state={u:"",p:"",e:"",busy:false};const root=document.getElementById("root");const send=async()=>{state.busy=true;draw();const r=await fetch("/api/session",{method:"POST",headers:{"content-type":"application/json","x-token":document.querySelector("meta[name=token]").content},body:JSON.stringify({login:state.u,secret:state.p})});if(r.ok){location.assign("/board")}else{state.busy=false;state.e="Wrong user name or password";draw()}};const draw=()=>{root.replaceChildren(h("h1",{},"${text(name)}"),h("div",{class:"card"},h("label",{},"Username ",h("input",{value:state.u,oninput:(e)=>{state.u=e.target.value}})),h("label",{},"Password ",h("input",{type:"password",value:state.p,oninput:(e)=>{state.p=e.target.value}})),h("p",{class:"error",role:"alert"},state.e),h("button",{type:"button",...(state.busy&&{disabled:""}),onclick:send},"Log in")))};setTimeout(draw,120)`;
    response.send(
      page(name, `<div id="root">Loading…</div><script>${script}</script>`, `<meta name="token" content="${token}">`),
    );
  });
  routes.post("/api/session", (request, response) => {
    if (!tokens.delete(String(request.headers["x-token"]))) return void response.status(419).json({ error: "token" });
    if (request.body.login !== account.userName || request.body.secret !== account.password)
      return void response.status(401).json({ error: "wrong" });
    sessions.start(response, { user: account.userName });
    response.json({ ok: true });
  });
  routes.get("/board", (request, response) => {
    const session = sessions.of(request);
    if (!session) return response.redirect(302, signInPath);
    response.send(inside(name, session.user!, says));
  });
  return { host, name, signInPath, account, router: routes };
}

/** One page that a script draws, with a token for a session and no cookie; where the token is kept is the script's affair. */
function tokenSite({ host, name, signInPath, account }: Drawn, script: string, landing: string): Site {
  const tokens = new Set<string>();
  const routes = router();
  const shell = page(name, `<div id="root"></div><script>${script}</script>`);
  for (const path of ["/", signInPath, landing]) routes.get(path, (_request, response) => void response.send(shell));
  routes.get("/robots.txt", (_request, response) => void response.type("text").send("User-agent: *\n"));
  routes.post("/api/tokens", (request, response) => {
    if (request.body.email !== account.userName || request.body.password !== account.password)
      return void response.status(401).json({ error: "invalid" });
    const token = randomBytes(18).toString("base64url");
    tokens.add(token);
    response.json({ token });
  });
  routes.get("/api/me", (request, response) => {
    const isIn = tokens.has(String(request.headers.authorization ?? "").replace("Bearer ", ""));
    response.status(isIn ? 200 : 401).json(isIn ? { user: account.userName } : {});
  });
  return { host, name, signInPath, account, router: routes };
}

/** Its token lies in local storage. */
export function storageSite(drawn: Drawn): Site {
  const { name, signInPath, text: says } = drawn;
  const script = `const root=document.getElementById("root");const show=async()=>{const t=localStorage.getItem("access_token");const r=t?await fetch("/api/me",{headers:{authorization:"Bearer "+t}}):null;if(r?.ok){const me=await r.json();root.innerHTML="<h1>Today at ${text(name)}</h1><p>Signed in as <b>"+me.user+"</b>.</p><p>${text(says)}</p>";if(location.pathname!=="/stalls")history.replaceState({},"","/stalls")}else{if(location.pathname!=="${signInPath}")history.replaceState({},"","${signInPath}");root.innerHTML='<h1>${text(name)}</h1><label for=u>Email</label><input id=u type=email><label for=p>Password</label><input id=p type=password><p class=error id=e></p><a href="#" class="btn" id=go>Sign in</a>';document.getElementById("go").onclick=async(event)=>{event.preventDefault();const q=(id)=>document.getElementById(id).value;const r=await fetch("/api/tokens",{method:"POST",headers:{"content-type":"application/json"},body:JSON.stringify({email:q("u"),password:q("p")})});if(!r.ok){document.getElementById("e").textContent="Invalid email or password";return}localStorage.setItem("access_token",(await r.json()).token);show()}}};show()`;
  return tokenSite(drawn, script, "/stalls");
}

/** Its token lies in a database of the browser's, beside what else the page remembers. */
export function databaseSite(drawn: Drawn): Site {
  const { name, signInPath, text: says } = drawn;
  const script = `const root=document.getElementById("root");const of=(r)=>new Promise((y,n)=>{r.onsuccess=()=>y(r.result);r.onerror=()=>n(r.error)});const open=()=>{const r=indexedDB.open("ledger",2);r.onupgradeneeded=()=>{r.result.createObjectStore("session",{keyPath:"name"}).createIndex("at","at");r.result.createObjectStore("seen",{autoIncrement:true})};return of(r)};const read=async()=>{const db=await open();const row=await of(db.transaction("session").objectStore("session").get("token"));db.close();return row?.value};const write=async(value)=>{const db=await open();const t=db.transaction(["session","seen"],"readwrite");t.objectStore("session").put({name:"token",value,at:new Date(),salt:new Uint8Array([7,0,255]),old:undefined});t.objectStore("seen").add({days:[1,2,3]});await new Promise((y)=>{t.oncomplete=y});db.close()};const show=async()=>{const t=await read();const r=t?await fetch("/api/me",{headers:{authorization:"Bearer "+t}}):null;if(r?.ok){root.innerHTML="<h1>${text(name)}</h1><p>${text(says)}</p>";if(location.pathname!=="/pages")history.replaceState({},"","/pages")}else{if(location.pathname!=="${signInPath}")history.replaceState({},"","${signInPath}");root.innerHTML='<h1>Sign in to ${text(name)}</h1><form><label>Email <input id=u type=email></label><label>Password <input id=p type=password></label><p class=error id=e></p><button>Sign in</button></form>';document.querySelector("form").onsubmit=async(event)=>{event.preventDefault();const q=(id)=>document.getElementById(id).value;const r=await fetch("/api/tokens",{method:"POST",headers:{"content-type":"application/json"},body:JSON.stringify({email:q("u"),password:q("p")})});if(!r.ok){document.getElementById("e").textContent="Invalid email or password";return}await write((await r.json()).token);show()}}};show()`;
  return tokenSite(drawn, script, "/pages");
}

/** A form in a frame of the same site, itself within a closed shadow root. */
export function shadowSite({ host, name, signInPath, account, text: says }: Drawn): Site {
  const sessions = new Sessions("sh");
  const routes = router();
  routes.get("/", (request, response) => {
    response.redirect(302, sessions.of(request) ? "/rooms" : signInPath);
  });
  routes.get(signInPath, (_request, response) => {
    response.send(
      page(name, `<h1>${text(name)}</h1><iframe src="/door" style="width:500px;height:320px;border:0"></iframe>`),
    );
  });
  routes.get("/door", (_request, response) => {
    const script = `customElements.define("front-door",class extends HTMLElement{connectedCallback(){const s=this.attachShadow({mode:"closed"});s.innerHTML='<form method=post action=/enter target=_top><p><label>User name <input name=user></label></p><p><label>Password <input name=pass type=password></label></p><button>Sign in</button></form>'}})`;
    response.send(page(name, `<front-door></front-door><script>${script}</script>`));
  });
  routes.post("/enter", (request, response) => {
    if (request.body.user !== account.userName || request.body.pass !== account.password)
      return void response.send(page(name, '<p class="error" role="alert">Wrong user name or password.</p>'));
    sessions.start(response, { user: account.userName });
    response.redirect(303, "/rooms");
  });
  routes.get("/rooms", (request, response) => {
    const session = sessions.of(request);
    if (!session) return response.redirect(302, signInPath);
    response.send(inside(name, session.user!, says));
  });
  return { host, name, signInPath, account, router: routes };
}
