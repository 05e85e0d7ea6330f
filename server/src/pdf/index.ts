export {
  paper,
  type Letterhead,
  type Paper,
  type PaperHead,
  type PictureFrame,
  type Ring,
  type TableColumn,
} from './paper.ts';
export { dayInWords, jpegOf, qrOf, type PaperPicture } from './parts.ts';
export { labelsPdf, type Label } from './labels.ts';
export { outlineOf } from './fonts.ts';
