import fp from 'fastify-plugin'

/** Nothing of the device is needed but what the page shows. */
const NO_DEVICE = ['accelerometer', 'camera', 'display-capture', 'geolocation', 'gyroscope', 'microphone', 'midi', 'payment', 'usb']
  .map((one) => `${one}=()`)
  .join(', ')

/** What is told of patients stays in no cache, of a browser or on the way; only what says otherwise, as a content pack, may be kept. */
export const privacy = fp(async (app) => {
  app.addHook('onSend', async (request, reply) => {
    reply.header('permissions-policy', NO_DEVICE)
    if (request.url.startsWith('/api/') && !reply.hasHeader('cache-control')) reply.header('cache-control', 'no-store')
  })
})
