import { queryOptions } from "@tanstack/react-query";
import { api, kept } from "../../shared/api/client";

/** All starters; they never change. */
export const STARTERS = queryOptions({
  queryKey: ["starters"],
  queryFn: () => kept(api.GET("/api/starters")),
  staleTime: Infinity,
});
