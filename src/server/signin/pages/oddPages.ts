/** Odd pages, written by hand, and what they hold: parts by their ids. */
import type { PageReading } from "../../../core/signin/page";

/** What a reading names, besides how sure it is. */
export type Part = Exclude<keyof PageReading, "confidence" | "newPasswords">;

export const ODD: [name: string, body: string, expected: Partial<Record<Part, string | null>>][] = [
  [
    "react login no form",
    `<div id="root"><div class="css-1x"><div class="css-2"><h1 class="t">Good to see you</h1><div class="css-3"><div class="css-4"><label class="lbl" for="r1">Work email</label><div><input aria-invalid="false" id="r1" type="text" value=""></div></div><div><label for="r2">Password</label><div><input id="r2" type="password"><button tabindex="-1" type="button" aria-label="toggle password visibility"><svg></svg></button></div></div><button class="css-9" tabindex="0" type="button" id="go">Log in<span></span></button><a href="/f">Forgot?</a></div></div></div></div>`,
    { kind: "sign-in", userName: "r1", password: "r2", submit: "go", form: null },
  ],
  [
    "org + user + pw",
    `<form id=f><label>Company code <input id=o name=company></label><label>User <input id=u name=usr></label><label>Password <input type=password id=p></label><button id=go>Enter</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "org id named like user id",
    `<form id=f><label>Organisation ID <input id=o name=orgid></label><label>User ID <input id=u name=userid></label><label>Password <input type=password id=p></label><input id=go type=submit value="Log on"></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "card and pin",
    `<form id=f method=post><h1>Library account</h1><label>Library card number <input id=u name=card></label><label>PIN <input type=password maxlength=4 inputmode=numeric id=p name=pin></label><button id=go>Log in</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go", oneTimeCode: null },
  ],
  [
    "pw then otp select",
    `<form id=f><label>Login<input id=u name=l></label><label>Password<input id=p type=password name=pw></label><label>Token (if you have one)<input id=c name=token autocomplete=off></label><button id=go>Sign in</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", oneTimeCode: "c", submit: "go" },
  ],
  [
    "magic link",
    `<form id=f><h1>Sign in</h1><p>We'll email you a link to sign in.</p><input id=u type=email name=email placeholder="you@work.example"><button id=go>Email me a link</button></form>`,
    { kind: "identifier-first", userName: "u", submit: "go" },
  ],
  [
    "phone login",
    `<form id=f><h2>Log in with your phone</h2><select name=cc><option>+44</option></select><input id=u type=tel name=phone placeholder="Phone number"><button id=go>Send code</button></form>`,
    { kind: "identifier-first", userName: "u", submit: "go" },
  ],
  [
    "otp typed password",
    `<form id=f><h1>Two-step verification</h1><p>Enter the 6 digit code</p><input type=password id=c name=otp maxlength=6><button id=go>Verify</button><button type=button>Resend</button></form>`,
    { kind: "one-time-code-step", oneTimeCode: "c", password: null, userName: null, submit: "go" },
  ],
  [
    "recovery code",
    `<form id=f><h1>Two-factor authentication</h1><label>Recovery code<input id=c name=recovery_code></label><button id=go>Verify</button></form>`,
    { kind: "one-time-code-step", oneTimeCode: "c", submit: "go" },
  ],
  [
    "email verification code",
    `<div class=card><p>Please type the code sent to a***@quill.example</p><input id=c class=form-control type=text><button id=go>Confirm</button></div>`,
    { kind: "one-time-code-step", oneTimeCode: "c", submit: "go", form: null },
  ],
  [
    "expired",
    `<h1>Your password has expired</h1><form id=f><label>User<input name=u value=ada readonly></label><label>Old<input id=p type=password name=a></label><label>New<input type=password name=b></label><label>Again<input type=password name=c></label><input type=submit id=go value=OK></form>`,
    { kind: "change-password", password: "p", submit: "go" },
  ],
  [
    "set initial password from invite",
    `<h1>Welcome to Quill. Choose a password to finish setting up your account.</h1><form id=f><input id=p type=password name=password placeholder="Password"><input type=password name=password_confirmation placeholder="Password again"><button id=go>Save and continue</button></form>`,
    { kind: "change-password", password: "p", submit: "go" },
  ],
  [
    "register single page with login link as text",
    `<form id=f><h2>Join Quill</h2><input id=u type=email placeholder=Email><input id=p type=password placeholder="Password (min. 8 characters)"><button id=go>Continue</button><p>Already have an account? <a href=/in>Sign in</a></p></form>`,
    { kind: "register", userName: "u", password: "p", submit: "go" },
  ],
  [
    "register: start trial",
    `<form id=f><h2>Start your 14-day trial</h2><input id=u name=work_email type=email placeholder="Work email"><input id=p type=password placeholder="Password"><input name=company placeholder="Company"><button id=go>Start free trial</button></form>`,
    { kind: "register", userName: "u", password: "p", submit: "go" },
  ],
  [
    "register no pw",
    `<form id=f><h1>Create your account</h1><label>Email<input id=u type=email></label><button id=go>Continue</button></form>`,
    { kind: "register", userName: "u", submit: "go" },
  ],
  [
    "a blog's sign-in",
    `<form name=enter id=f action=/check method=post><p><label for=u>Username or Email Address</label><input type=text name=who id=u></p><div><label for=p>Password</label><div><input type=password name=pw id=p><button type=button aria-label="Show password"><span></span></button></div></div><p><label><input name=keep type=checkbox> Remember Me</label></p><p><input type=submit name=go id=go value="Log In"><input type=hidden name=redirect_to></p></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "a blog's lost password",
    `<form id=f action="/x?act=lost" method=post><p>Please enter your username or email address. You will receive an email message with instructions on how to reset your password.</p><p><label for=u>Username or Email Address</label><input type=text name=who id=u></p><p><input type=submit id=go value="Get New Password"></p></form>`,
    { kind: "reset-request", userName: "u", submit: "go" },
  ],
  [
    "comment form",
    `<article>...</article><form id=f><h3>Leave a reply</h3><p>Logged out. <a href=/in>Log in</a> to comment faster.</p><textarea name=comment></textarea><input name=author placeholder=Name><input name=email type=email placeholder=Email><input name=url placeholder=Website><input type=submit value="Post Comment"></form>`,
    { kind: "none" },
  ],
  [
    "tracking",
    `<form id=f><h1>Track your parcel</h1><input name=tracking placeholder="Tracking number"><button>Track</button></form>`,
    { kind: "none" },
  ],
  [
    "guest checkout + returning",
    `<div><form action=/guest><h2>New customers</h2><input type=email name=ge placeholder=Email><button>Continue as guest</button></form></div><div><form id=f action=/login><h2>Returning customers</h2><input id=u type=email name=e placeholder=Email><input id=p type=password name=p placeholder=Password><button id=go>Sign in &amp; check out</button></form></div>`,
    { kind: "sign-in", form: "f", userName: "u", password: "p", submit: "go" },
  ],
  [
    "job application",
    `<form><h1>Apply now</h1><input name=first_name placeholder="First name"><input name=last_name placeholder="Last name"><input type=email name=email placeholder=Email><input type=file name=cv><button>Submit application</button></form>`,
    { kind: "none" },
  ],
  [
    "delete account w/ pw?",
    `<h1>Confirm it is you</h1><p>Signed in as ada@quill.example</p><form id=f><label>Password<input id=p type=password></label><button id=go>Confirm</button></form>`,
    { kind: "password-only-step", password: "p", submit: "go" },
  ],
  [
    "misleading: name=search user",
    `<form id=f method=post action=/auth><input id=u name=search placeholder="Member number"><input id=p name=newpassword type=password placeholder="Password"><button id=go name=register>Log in</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "misleading ids register",
    `<form id=f class="register-form signup" method=post><h1>Sign in</h1><input id=u name=email><input id=p name=password type=password><button id=go>Sign in</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "misleading: class login on register",
    `<div class="login-page login-box"><form id=f class="login-form" action="/login/new" method=post><h1>Register</h1><input name=n placeholder="Full name"><input id=u name=login placeholder=Email><input id=p type=password name=login_password placeholder="Password"><button id=go class=login-btn>Register</button></form></div>`,
    { kind: "register", userName: "u", password: "p", submit: "go" },
  ],
  [
    "misleading: class login on reset",
    `<div class="login-page"><form id=f class="login-form" action="/login/forgot" method=post><h3>Trouble?</h3><p>Type your email and we'll help you get back in.</p><input id=u name=login_email placeholder=Email><button id=go class=login-btn>Reset password</button></form></div>`,
    { kind: "reset-request", userName: "u", submit: "go" },
  ],
  [
    "signup w/ password strength, class login",
    `<form id=f class=login><h2>Get started for free</h2><input id=u type=email name=user[email] placeholder=Email><input id=p type=password name=user[password] placeholder=Password><div class=meter>Password strength: weak</div><label><input type=checkbox> I agree to the Terms</label><button id=go>Continue</button></form>`,
    { kind: "register", userName: "u", password: "p", submit: "go" },
  ],
  [
    "two logins: header & main",
    `<header><form><input name=h1 placeholder=Email><input type=password name=h2 placeholder=Password><button>Log in</button></form></header><main><form id=f><h1>Sign up</h1><input name=e type=email><input type=password><button>Create account</button></form></main>`,
    { kind: "sign-in" },
  ],
  [
    "password unhide text",
    `<form id=f><h1>Login</h1><input id=u name=user><input id=p type=text name=password autocomplete=current-password placeholder=Password><button id=go>Login</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "hidden via class in style with id",
    `<style>#reg,.hide{display:none!important}</style><form id=reg><input type=password><input type=password><button>Register</button></form><form id=f class=x><label>E-post<input id=u></label><label>Passord<input id=p type=password></label><button id=go>Logg på</button></form>`,
    { kind: "sign-in", form: "f", userName: "u", password: "p", submit: "go" },
  ],
  [
    "modal login hidden; page is article",
    `<h1>News</h1><div class="modal" aria-hidden="true" style="display:none;"><form><input name=u><input type=password><button>Sign in</button></form></div><form action=/s><input name=q><button>Go</button></form>`,
    { kind: "none" },
  ],
  [
    "noscript",
    `<noscript><form><input name=u><input type=password name=p><button>Sign in</button></form></noscript><div id=app></div>`,
    { kind: "none" },
  ],
  [
    "textarea-only & search",
    `<form role=search><input type=search placeholder="Search users"><button>Search</button></form>`,
    { kind: "none" },
  ],
  [
    "coupon",
    `<form><label>Promo code<input name=code maxlength=8></label><button>Apply</button></form>`,
    { kind: "none" },
  ],
  [
    "postcode finder",
    `<form><label>Enter your postcode<input name=postcode></label><button>Find my branch</button></form>`,
    { kind: "none" },
  ],
  [
    "gift card code + pin",
    `<form><h1>Check your gift card balance</h1><label>Card number<input name=cn></label><label>PIN<input name=pin maxlength=4></label><button>Check balance</button></form>`,
    { kind: "none" },
  ],
  [
    "unsubscribe",
    `<form><h1>Unsubscribe</h1><input type=email name=email value="a@b.example"><button>Unsubscribe</button></form>`,
    { kind: "none" },
  ],
  [
    "username recovery",
    `<form id=f><h1>Forgot your username?</h1><label>Email<input id=u type=email></label><button id=go>Send my username</button></form>`,
    { kind: "reset-request", userName: "u", submit: "go" },
  ],
  [
    "reset with dob",
    `<form id=f><h1>Reset your passcode</h1><label>Customer number<input id=u name=cn></label><label>Date of birth<input name=dob></label><button id=go>Continue</button></form>`,
    { kind: "reset-request", userName: "u", submit: "go" },
  ],
  [
    "div button role",
    `<div class=login><input id=u placeholder=Username><input id=p type=password placeholder=Password><div id=go role=button class=btn>Sign in</div><div role=button>Cancel</div></div>`,
    { kind: "sign-in", form: null, userName: "u", password: "p", submit: "go" },
  ],
  [
    "a onclick submit",
    `<form id=f name=f method=post action=login.do><table><tr><td>Usuario:<td><input id=u name=txtUsr><tr><td>Clave:<td><input id=p type=password name=txtCla><tr><td colspan=2><a id=go href="javascript:document.f.submit()">Ingresar</a></table></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "code 6 boxes tel w/ form",
    `<form id=f><p>Enter the code</p><input id=c type=tel maxlength=1><input type=tel maxlength=1><input type=tel maxlength=1><input type=tel maxlength=1><input type=tel maxlength=1><input type=tel maxlength=1><button id=go>Submit</button></form>`,
    { kind: "one-time-code-step", oneTimeCode: "c", submit: "go" },
  ],
  [
    "code in boxes unlabelled divs, auto-submit no button",
    `<h2>Verify it's you</h2><div><input id=c maxlength=1><input maxlength=1><input maxlength=1><input maxlength=1></div>`,
    { kind: "one-time-code-step", oneTimeCode: "c", submit: null, form: null },
  ],
  [
    "welsh login",
    `<form id=f><label>Enw defnyddiwr<input id=u></label><label>Cyfrinair<input id=p type=password></label><button id=go>Mewngofnodi</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "georgian unknown",
    `<form id=f><h1>შესვლა</h1><label>მომხმარებელი<input id=u name=a></label><label>პაროლი<input id=p type=password name=b></label><button id=go>შესვლა</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "georgian register 3 pw",
    `<form id=f><label>სახელი<input name=a></label><label>ელფოსტა<input id=u type=email name=b></label><label>პაროლი<input id=p type=password name=b></label><label>გაიმეორეთ<input type=password name=c></label><button id=go>რეგისტრაცია</button></form>`,
    { kind: "register", userName: "u", password: "p", submit: "go" },
  ],
  [
    "serbian latin login",
    `<form id=f><label>Korisničko ime<input id=u></label><label>Lozinka<input id=p type=password></label><button id=go>Uloguj se</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "admin login with 'new password' hidden",
    `<form id=f><input id=u name=user placeholder=User><input id=p type=password name=pass placeholder=Pass><div hidden><input type=password name=new></div><button id=go>OK</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "log in + sms choice",
    `<form id=f><h1>Bank login</h1><label>Personal ID<input id=u inputmode=numeric maxlength=8></label><label>Password<input id=p type=password></label><label><input type=radio name=m checked>App</label><label><input type=radio name=m>SMS</label><button id=go>Continue</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go", oneTimeCode: null },
  ],
  [
    "sign-in button outside form w/ form attr",
    `<form id=f><input id=u name=u placeholder=Username><input id=p type=password></form><button form=f id=go>Sign in</button><button>Sign up</button>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "security question",
    `<form id=f><h1>Security question</h1><label>What was your first school?<input name=answer></label><button>Continue</button></form>`,
    { kind: "none" },
  ],
  [
    "a new mail address, with the password",
    `<form id=f><h1>Change your e-mail address</h1><label>New e-mail<input id=u type=email></label><label>Current password<input id=p type=password></label><button id=go>Save</button></form>`,
    { kind: "none" },
  ],
  [
    "invitation code register",
    `<form id=f><h1>Sign up</h1><label>Invitation code<input name=invite></label><label>Email<input id=u type=email></label><label>Password<input id=p type=password></label><button id=go>Sign up</button></form>`,
    { kind: "register", userName: "u", password: "p", submit: "go", oneTimeCode: null },
  ],
  [
    "newsletter popup + login",
    `<div class=popup><form><h3>10% off your first order</h3><input type=email placeholder="Your email"><button>Get my code</button></form></div><form id=f action=/account/login><h1>Login</h1><input id=u type=email name=customer[email] placeholder=Email><input id=p type=password name=customer[password] placeholder=Password><button id=go>Sign in</button></form>`,
    { kind: "sign-in", form: "f", userName: "u", password: "p", submit: "go" },
  ],
  [
    "discount popup alone",
    `<div class=popup><form><h3>10% off your first order</h3><input type=email placeholder="Your email"><button>Get my code</button></form></div>`,
    { kind: "none" },
  ],
  [
    "a mail address to verify, sent again",
    `<form><h1>Verify your e-mail</h1><p>We sent you a link.</p><input type=email name=e value=a@b.example><button>Resend</button></form>`,
    { kind: "none" },
  ],
  [
    "login w/ captcha code named code",
    `<form id=f><input id=u name=name placeholder="用户名"><input id=p type=password placeholder="密码"><input name=captcha placeholder="验证码"><img src=captcha.jpg><button id=go>登录</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go", oneTimeCode: null },
  ],
  [
    "login sms tabs zh",
    `<div><span>密码登录</span><span>短信登录</span><input id=u placeholder="手机号/邮箱"><input id=p type=password placeholder="请输入密码"><button id=go>登录</button></div>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go", form: null },
  ],
  [
    "jp register",
    `<form id=f><h1>新規会員登録</h1><label>メールアドレス<input id=u type=email></label><label>パスワード<input id=p type=password></label><button id=go>同意して登録</button></form>`,
    { kind: "register", userName: "u", password: "p", submit: "go" },
  ],
  [
    "jp login+newreg button both",
    `<form id=f><label>会員ID<input id=u></label><label>パスワード<input id=p type=password></label><button id=go>ログイン</button><button type=button>新規会員登録</button></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "two submit: register first",
    `<form id=f><input id=u name=email placeholder=Email><input id=p type=password name=pw placeholder=Password><input type=submit name=r value="Register"><input type=submit name=l id=go value="Log in"></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
  [
    "forgot submit inside",
    `<form id=f><input id=u name=email placeholder=Email><input id=p type=password name=pw placeholder=Password><input type=submit name=fg value="Forgot password?"><input type=submit name=l id=go value="Go"></form>`,
    { kind: "sign-in", userName: "u", password: "p", submit: "go" },
  ],
];
