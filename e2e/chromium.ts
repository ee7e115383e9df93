/** Debian's Chromium, kept from looking for its maker's hosts, drawing in software. */
export const CHROMIUM_OPTIONS = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--use-angle=swiftshader',
    '--enable-unsafe-swiftshader',
    // The windows need WebGL; the page around them is drawn far quicker without it.
    '--disable-gpu-rasterization',
    '--disable-gpu-compositing',
  ],
}
