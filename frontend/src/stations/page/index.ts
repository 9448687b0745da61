export { PageStation } from "./PageStation";
