import net from 'node:net';

const STRANGER = '<h1>Bad gateway</h1>';
const STRANGE = [
  'HTTP/1.1 502 Bad Gateway', 'content-type: text/html', `content-length: ${STRANGER.length}`, 'connection: close', '', STRANGER,
].join('\r\n');

/**
 * The line between a browser and the workshop. It is "up", "cut" (nobody is reached), "silent" (whoever takes a request never answers) or
 * "strange" (something else answers).
 */
export async function gate(port, to) {
  let line = 'up';
  const ends = new Set();
  const hold = (socket) => {
    ends.add(socket);
    socket.on('close', () => ends.delete(socket));
    socket.on('error', () => {});
  };
  const server = net.createServer((browser) => {
    hold(browser);
    if (line === 'cut') browser.destroy();
    else if (line === 'silent') browser.resume();
    else if (line === 'strange') browser.once('data', () => browser.end(STRANGE));
    else {
      const workshop = net.connect(to, 'localhost');
      hold(workshop);
      workshop.on('close', () => browser.destroy());
      browser.on('close', () => workshop.destroy());
      browser.pipe(workshop);
      workshop.pipe(browser);
    }
  });
  await new Promise((resolve) => {
    server.listen(port, resolve);
  });
  return {
    set(now) {
      line = now;
      for (const end of ends) {
        if (now !== 'silent') end.destroy();
        else {
          end.unpipe();
          end.resume();
        }
      }
    },
    close() {
      for (const end of ends) end.destroy();
      return new Promise((resolve) => {
        server.close(resolve);
      });
    },
  };
}
