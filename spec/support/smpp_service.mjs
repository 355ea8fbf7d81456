// A text message service made of the npm package smpp: prints its port, then each message it takes as a line of JSON.
// A number that ends in 0000 is refused, one that ends in 9999 is put off.
import { createRequire } from 'node:module'

const require = createRequire(new URL('../../web/package.json', import.meta.url))
const smpp = require('smpp')
const server = smpp.createServer({}, session => {
  session.on('bind_transmitter', pdu => session.send(pdu.response({ command_status: pdu.password === 'open' ? smpp.ESME_ROK : smpp.ESME_RBINDFAIL })))
  session.on('submit_sm', pdu => {
    const to = pdu.destination_addr
    const status = to.endsWith('0000') ? smpp.ESME_RINVDSTADR : to.endsWith('9999') ? smpp.ESME_RTHROTTLED : smpp.ESME_ROK
    console.log(JSON.stringify({ to, from: pdu.source_addr, coding: pdu.data_coding, ton: pdu.dest_addr_ton, text: pdu.short_message.message || pdu.message_payload?.message || '' }))
    session.send(pdu.response({ command_status: status, message_id: '1' }))
  })
  session.on('unbind', pdu => { session.send(pdu.response()); session.close() })
  session.on('error', () => {})
})
server.listen(0, '127.0.0.1', () => console.log(server.address().port))
process.stdin.resume()
process.stdin.on('end', () => process.exit(0))
