import type { Language } from "./language";

/** French. */
export const fr: Language = {
  signIn: {
    words: `
      connexion, se connecter, connectez vous, identifiez vous, me connecter, s identifier, connecter,
      ouvrir une session, deja client, acces client
    `,
  },
  register: {
    words: `
      s inscrire, inscription, inscrivez vous, creer( un| mon| votre)? compte, je m inscris, m inscrire,
      cre(er|ez|ation)( \\w+)?( \\w+)? compte
    `,
  },
  reset: {
    words: `
      mot de passe (oublie|perdu), reinitialiser( le| mon| votre)?( mot de passe)?, reinitialisation,
      recuperer( mon)? (mot de passe|compte), nouveau mot de passe par
    `,
  },
  change: {
    words: `
      (changer|modifier|changement)( de| le| mon| votre)? mot de passe, nouveau mot de passe,
      definir( un)? mot de passe
    `,
  },
  confirm: { words: "confirmer, repeter" },
  old: { words: "ancien, actuel" },
  new: { words: "nouveau" },
  password: { words: "mot de passe, mdp" },
  userName: { words: "identifiant, nom d utilisateur, utilisateur, numero (de )?client, pseudo, matricule" },
  email: { words: "courriel, adresse (e ?mail|mail|electronique)" },
  phone: { words: "portable" },
  code: { words: "code( de)? (verification|securite|validation|confirmation), code (a usage unique|recu|unique)" },
  search: { words: "recherche(r)?, rechercher" },
  newsletter: { words: "s abonner, abonnez vous, infolettre" },
  next: { words: "suivant, continuer" },
  send: { words: "envoyer, valider, verifier, confirmer, mettre a jour" },
  aside: { words: "afficher, masquer, annuler, fermer, retour" },
  remember: { words: "se souvenir( de moi)?, rester connecte(e)?, rester identifie(e)?" },
  particulars: { words: "prenom, nom( de famille)?, date de naissance, code postal, nom" },
  otherPurpose: { words: "supprimer( (mon|votre|le) compte)?, commentaire" },
  settings: {
    words: `serveur, base de donnees, hote, nom d hote, parametres, fuseau horaire, installation, role, reseau`,
  },
  payment: {
    words: `numero de carte, carte cadeau, carte bancaire, solde, paiement, payer, montant, titulaire, date d expiration`,
  },
  secondSecret: { words: `date de naissance, question secrete, reponse secrete` },
};
