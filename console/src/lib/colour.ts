/**
 * A colour as it is typed: "#000", "1a2326", "rgb(0 0 0)" or a name that CSS knows; null for what is none.
 */
export function readColour(text: string): string | null {
  const given = text.trim().toLowerCase()
  const digits = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/.exec(given)?.[1]
  if (digits) return `#${digits.length === 3 ? [...digits].map((one) => one + one).join('') : digits}`
  const pen = document.createElement('canvas').getContext('2d')
  if (!pen || !given || !CSS.supports('color', given)) return null
  pen.fillStyle = '#010203'
  pen.fillStyle = given
  return /^#[0-9a-f]{6}$/.test(pen.fillStyle) && (pen.fillStyle !== '#010203' || given === '#010203')
    ? pen.fillStyle
    : null
}
