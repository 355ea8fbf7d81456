// Checks a token (JWT, RFC 7519) by jose: node pass.mjs SECRET AUDIENCE TOKEN prints its claims, or why it is not good.
import { createRequire } from 'node:module'

const require = createRequire(new URL('../../web/package.json', import.meta.url))
const { jwtVerify, decodeProtectedHeader } = require('jose')
const [secret, audience, token] = process.argv.slice(2)
try {
  const { payload } = await jwtVerify(token, new TextEncoder().encode(secret), { audience, algorithms: ['HS256'] })
  console.log(JSON.stringify({ header: decodeProtectedHeader(token), claims: payload }))
} catch (error) {
  console.log(JSON.stringify({ error: error.code }))
}
