import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, kept, type Workshop } from "../shared/api/client";
import { queryClient, refresh } from "../shared/api/queries";

const EVERY_MS = 1000;

/** Fetch everything anew when another window has changed something; a hidden window looks when it is seen again. */
export function useOtherWindows(): void {
  const { data, dataUpdatedAt } = useQuery({
    queryKey: ["history"],
    queryFn: () => kept(api.GET("/api/history")),
    staleTime: 0,
    retry: false,
    refetchInterval: EVERY_MS,
  });
  useEffect(() => {
    const known = queryClient.getQueryData<Workshop>(["workshop"])?.history;
    if (!data || !known || queryClient.isMutating() || queryClient.isFetching({ queryKey: ["workshop"] })) return;
    const same = known.undo_id === data.undo_id && known.redo_id === data.redo_id && known.kept_at === data.kept_at;
    if (!same) void refresh();
  }, [data, dataUpdatedAt]); // also when it says the same again: a change of this window may have been under way
}
