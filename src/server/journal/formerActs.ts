/**
 * What acts were called in lines that an older Galtry wrote: a line of the chain is never rewritten, so it is read under
 * the name of today. By area, each former name with the one of today.
 */
const FORMER: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  access: {
    accept: "acceptAccess",
    answer: "answerRequest",
    ask: "requestAccess",
    askFirst: "requestApproval",
    askForSite: "requestLogin",
    askGuestIn: "inviteGuest",
    change: "changeAccess",
    dropIn: "sendToLetterbox",
    give: "giveAccess",
    hangLetterbox: "createLetterbox",
    mailHandoverCode: "sendHandoverCode",
    makeHandover: "createHandover",
    passAskOn: "passRequestOn",
    passEmergency: "useInEmergency",
    sayYes: "answerApproval",
    setAsksFirst: "setApproval",
    withdraw: "endAccess",
  },
  lanyard: {
    confirm: "confirmPairing",
    end: "endLanyard",
  },
  mail: {
    tried: "mailTried",
  },
  people: {
    add: "addPerson",
    bringBack: "reinstate",
    failedSignIns: "journalFailures",
    leave: "markLeaver",
    makeGroup: "createGroup",
  },
  rounds: {
    finish: "finishRound",
    setEvery: "setRounds",
    start: "startRound",
  },
  rules: {
    change: "changeRules",
  },
  signIn: {
    begin: "beginSignIn",
    end: "handOver",
    landed: "reportLanding",
    signedOut: "dropJar",
  },
  vaults: {
    askAgain: "setPasswordOnReveal",
    bin: "binEntry",
    bringBack: "restoreVersion",
    convert: "convertEntry",
    copy: "duplicateNodes",
    dropSite: "removeSite",
    erase: "eraseEntry",
    keepSite: "saveSite",
    makeFolder: "createFolder",
    makeKind: "createKind",
    makeVault: "createVault",
    move: "moveNodes",
    restore: "restoreEntry",
    reveal: "revealField",
    setTakers: "setExporters",
    tag: "tagEntries",
    takeOut: "exportEntries",
    tick: "tickCode",
    tryOnceMore: "tryPasswordAgain",
  },
};

export const FORMER_ACTS: Readonly<Record<string, string>> = Object.fromEntries(
  Object.entries(FORMER).flatMap(([area, names]) =>
    Object.entries(names).map(([former, now]) => [`${area}.${former}`, `${area}.${now}`]),
  ),
);
