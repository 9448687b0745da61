export { MotifStation } from "./MotifStation";
