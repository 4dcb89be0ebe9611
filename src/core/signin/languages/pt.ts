import type { Language } from "./language";

/** Portuguese. */
export const pt: Language = {
  signIn: { words: "iniciar sessao, inicie sessao, acessar, acesso, entrar na conta, fazer login" },
  register: {
    words: `
      registar, registo, registar se, registe se, cadastrar, cadastro, cadastre se, criar( uma| a sua| sua)? conta,
      inscreva se, cadastre, cri(e|ar|ando)( \\w+)?( \\w+)? conta
    `,
  },
  reset: {
    words: `
      esqueci( a| minha)?( senha| me)?, esqueceu, redefinir( a| sua)?( senha| palavra passe)?, recuperacao,
      repor( a)? palavra passe, redefinicao, esqueceu( se)?( da| a)?( senha| palavra passe)?
    `,
  },
  change: { words: "(alterar|mudar|trocar)( a| sua)? (senha|palavra passe), nova (senha|palavra passe)" },
  old: { words: "atual, antiga" },
  new: { words: "nova" },
  password: { words: "senha, palavra passe" },
  userName: { words: "utilizador, nome de (utilizador|usuario), cpf" },
  phone: { words: "telemovel, celular" },
  search: { words: "pesquisar?, busca" },
  newsletter: { words: "subscrever, assinar, receba novidades, novidades" },
  next: { words: "seguinte, avancar, proximo" },
  send: { words: "salvar" },
  remember: {
    words: `
      lembrar( me)?, lembre( se)?( de mim)?, manter( me)? (conectado|ligado|sessao( iniciada)?), continuar conectado
    `,
  },
  particulars: { words: "apelido, sobrenome, data de nascimento" },
  otherPurpose: { words: "mensagem" },
  settings: {
    words: `servidor, banco de dados, base de dados, configuracoes, definicoes, fuso horario, instalacao, rede`,
  },
  payment: { words: `numero do cartao, cartao (de )?presente, saldo, pagamento, pagar, valor, titular, validade` },
  secondSecret: { words: `data de nascimento, pergunta secreta` },
};
