import { useQuery } from "@tanstack/react-query";
import { api, kept, type Line, type PageLines, type Schemas, type Source } from "../../shared/api/client";
import { queryClient, useChange, withVersion } from "../../shared/api/queries";

export function usePageLines(id: number) {
  return useQuery({
    queryKey: ["page", id],
    queryFn: () => kept<PageLines>(api.GET("/api/pages/{id}", { params: { path: { id } } })),
    staleTime: 0,
  });
}

export type LinePatch = Omit<Schemas["LineChange"], "version" | "merge_key"> & { merge_key?: string };

export type LinesPatch = Partial<Omit<Schemas["LinesChange"], "lines">>;

/** The changes a page's lines can take; each is kept by the server as one named step. */
export function useLineChanges(pageId: number) {
  const draw = useChange((body: { brush_id: number; source: Source; size_pct?: number; ink?: string | null; name?: string }) =>
    kept(api.POST("/api/pages/{id}/lines", { params: { path: { id: pageId } }, body: body as Schemas["NewLine"] })),
  );
  const bringIn = useChange((body: Schemas["LinesFile"]) =>
    kept(api.POST("/api/pages/{id}/lines-file", { params: { path: { id: pageId } }, body })),
  );
  const change = useChange(({ line, ...patch }: LinePatch & { line: Line }) =>
    withVersion("line", line, (version) =>
      kept(
        api.PATCH("/api/lines/{id}", {
          params: { path: { id: line.id } },
          body: { ...patch, version, merge_key: patch.merge_key ?? "" } as Schemas["LineChange"],
        }),
      ),
    ),
  );
  const remove = useChange((line: Line) =>
    kept(api.DELETE("/api/lines/{id}", { params: { path: { id: line.id }, query: { version: line.version } } })),
  );
  const part = useChange((line: Line) =>
    kept<PageLines>(api.POST("/api/lines/{id}/sides", { params: { path: { id: line.id } }, body: { version: line.version } })),
  );
  const together = useChange(({ lines, ...patch }: LinesPatch & { lines: Line[] }) => {
    const newest = queryClient.getQueryData<PageLines>(["page", pageId])?.lines ?? lines;
    const asked = lines.map(({ id, version }) => ({ id, version: newest.find((line) => line.id === id)?.version ?? version }));
    const body = { ...patch, lines: asked } as Schemas["LinesChange"];
    return kept<PageLines>(api.PATCH("/api/pages/{id}/lines", { params: { path: { id: pageId } }, body }));
  });
  return { draw, bringIn, change, remove, part, together };
}

export type LineChanges = ReturnType<typeof useLineChanges>;
