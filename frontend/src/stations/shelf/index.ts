export { ShelfStation } from "./ShelfStation";
