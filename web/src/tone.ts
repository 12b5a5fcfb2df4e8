export { COLOURS as tone } from "./api/constants";
