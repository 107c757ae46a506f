/** The rows of templates, and instructions as they are kept. */
export { Favourite, Template } from './entity.ts';
export {
  instructionsOfWords,
  picturesIn,
  sanitiseInstructions,
  withPictures,
  wordsOfInstructions,
} from './instructions.ts';
