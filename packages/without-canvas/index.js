// pdf.js names these when it is loaded, and uses them only where it paints.
class Nothing {}
module.exports = { DOMMatrix: Nothing, ImageData: Nothing, Path2D: Nothing };
