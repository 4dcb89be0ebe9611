import type { Language } from "./language";

/** Greek. */
export const el: Language = {
  signIn: { parts: "συνδεση, εισοδος, είσοδος" },
  register: { parts: "εγγραφη, δημιουργια λογαριασμου" },
  reset: { parts: "επαναφορα κωδικου, ξεχασα, ξεχασατε, υπενθυμιση, ξεχασες" },
  change: { parts: "αλλαγη κωδικου, νεος κωδικος" },
  confirm: { parts: "επιβεβαιωση, επαναληψη" },
  old: { parts: "τρεχων, παλιος" },
  new: { parts: "νεος" },
  password: { parts: "κωδικος προσβασης, κωδικος, συνθηματικο" },
  userName: { parts: "ονομα χρηστη, χρηστης" },
  email: { parts: "ηλεκτρονικ" },
  code: { parts: "κωδικος (επαληθευσης|μιας χρησης)" },
  search: { parts: "αναζητηση" },
  newsletter: { parts: "ενημερωτικο" },
  next: { parts: "επομενο, συνεχεια" },
  send: { parts: "υποβολη, αποστολη, επιβεβαιωση, αποθηκευση" },
  remember: { parts: "να με θυμασαι, απομνημονευση" },
  particulars: { parts: "ονομα(?! χρηστη), επωνυμο" },
  otherPurpose: { parts: "μηνυμα" },
};
