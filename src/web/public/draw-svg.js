// Draws an SVG to pixels, in a frame of its own: the page that asked can give it up by removing the frame, however long a
// nest of references would take to draw. Asked: bytes, width, height, type of the picture wanted and its qualities with
// the most characters it may have. Answered: the first that fits, or why there is none.
addEventListener('message', async ({ data, source }) => {
  if (source !== parent) return;
  const { bytes, width, height, qualities, most } = data;
  const url = URL.createObjectURL(new Blob([bytes], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = Object.assign(document.createElement('canvas'), { width, height });
    const context = canvas.getContext('2d');
    context.fillStyle = '#ffffff';
    context.fillRect(0, 0, width, height);
    context.drawImage(image, 0, 0, width, height);
    const drawn = qualities.map((quality) => canvas.toDataURL('image/jpeg', quality));
    parent.postMessage({ dataUrl: drawn.find(({ length }) => length <= most) ?? null }, '*');
  } catch {
    parent.postMessage({ isBroken: true }, '*');
  }
});
parent.postMessage({ isReady: true }, '*');
