// Writes the QR code of a text as SVG to its output, for labels.
import QRCode from 'qrcode';

process.stdout.write(await QRCode.toString(process.argv[2], { type: 'svg', errorCorrectionLevel: 'M', margin: 1 }));
