export { RepeatStation } from "./RepeatStation";
