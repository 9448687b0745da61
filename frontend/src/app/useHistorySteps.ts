import { api, kept, type Schemas, type Workshop } from "../shared/api/client";
import { queryClient, useChange } from "../shared/api/queries";

/** Take the last step back, or again. A change that is still on its way is waited for, and is then the step that is taken back. */
export function useHistorySteps() {
  const known = (): Schemas["History"] | undefined => queryClient.getQueryData<Workshop>(["workshop"])?.history;
  const step = async (path: "/api/undo" | "/api/redo", step_id: number | null | undefined) =>
    step_id ? kept(api.POST(path, { body: { step_id } })) : undefined;
  const back = useChange(() => step("/api/undo", known()?.undo_id));
  const again = useChange(() => step("/api/redo", known()?.redo_id));
  return {
    undo: () => !back.isPending && back.mutate(undefined),
    redo: () => !again.isPending && again.mutate(undefined),
  };
}
