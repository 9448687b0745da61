import { useQuery } from "@tanstack/react-query";
import { api, kept, type Page } from "../../shared/api/client";

/** The ready lines with their figures as they begin on a page; asked for once they are wanted. */
export const useReadyLines = (page: Page, wanted: boolean) =>
  useQuery({
    queryKey: ["ready lines", page.id, page.width_mm, page.height_mm],
    queryFn: () => kept(api.GET("/api/pages/{id}/ready-lines", { params: { path: { id: page.id } } })),
    enabled: wanted,
  });
