import type { Language } from "./language";

/** Spanish. */
export const es: Language = {
  signIn: {
    words: `
      iniciar( la)? sesion, inicia( tu)? sesion, inicio de sesion, acceder, acceso, entrar, ingresar, ingreso,
      identificate, acceso clientes, identificarse, iniciar sesion
    `,
  },
  register: {
    words: `
      registrarse, registrate, registro, crear( una| mi| tu)? cuenta, nueva cuenta, darse de alta, date de alta,
      unirse, cre(a|ar|e|ate)( \\w+)?( \\w+)? cuenta
    `,
  },
  reset: {
    words: `
      olvide( mi| la)? (contrasena|clave), olvidaste,
      recuperar( la| tu| mi| su)? (contrasena|clave|cuenta|acceso|senha|palavra passe),
      restablecer( la| tu| mi| su)?( contrasena| clave)?, has olvidado, restablecimiento,
      restaurar( la)? (contrasena|clave)
    `,
  },
  change: {
    words: `
      cambiar( la| tu| mi| su)? (contrasena|clave), cambio de (contrasena|clave), nueva (contrasena|clave),
      modificar (contrasena|clave)
    `,
  },
  confirm: { words: "repetir, repite, confirmar" },
  old: { words: "actual, antigua, anterior" },
  new: { words: "nueva" },
  password: { words: "contrasena, clave" },
  userName: { words: "usuario, nombre de usuario, numero de cliente, dni, nif" },
  email: { words: "correo( electronico)?" },
  phone: { words: "movil" },
  code: {
    words: `
      codigo( de)? (verificacion|verificacao|seguridad|seguranca|acceso|acesso|confirmacion|autenticacion)
    `,
  },
  search: { words: "buscar, busqueda" },
  newsletter: { words: "suscribirse, suscribete, suscripcion, boletin" },
  next: { words: "siguiente, continuar" },
  send: { words: "enviar, guardar, verificar, confirmar, actualizar" },
  aside: { words: "mostrar, ocultar, cancelar, cerrar, volver" },
  remember: {
    words: `
      recuerdame, recordarme, recordar, mantener(me)?( la)? (sesion|conectado)( iniciada)?, no cerrar sesion
    `,
  },
  particulars: { words: "nombre, apellidos?, fecha de nacimiento" },
  otherPurpose: { words: "mensaje, comentario" },
  settings: {
    words: `servidor, base de datos, anfitrion, ajustes, configuracion, zona horaria, instalacion, rol, red`,
  },
  payment: { words: `numero de( la)? tarjeta, tarjeta( de)? regalo, saldo, pago, pagar, importe, titular, caducidad` },
  secondSecret: { words: `fecha de nacimiento, pregunta secreta, respuesta secreta` },
};
