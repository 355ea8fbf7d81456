// Sends one text message to the port and number given, by the npm package smpp, and prints the status of the answer.
import { createRequire } from 'node:module'

const require = createRequire(new URL('../../web/package.json', import.meta.url))
const smpp = require('smpp')
const [port, to, text] = process.argv.slice(2)
const session = smpp.connect({ url: `smpp://127.0.0.1:${port}` }, () => {
  session.bind_transceiver({ system_id: 'other', password: 'x' }, bound => {
    if (bound.command_status) process.exit(1)
    session.submit_sm({ destination_addr: to, source_addr: 'Other', ...(text.length > 140 ? { message_payload: text } : { short_message: text }) }, answer => {
      console.log(answer.command_status)
      session.unbind(() => session.close())
    })
  })
})
