import { createContext, useContext, useState, type ReactNode } from "react";
import { useStore, type StoreApi } from "zustand";

/** A store that lives as long as what it belongs to is open: the provider makes one, the hook reads it. */
export function scopedStore<Of, State>(name: string, make: (of: Of) => StoreApi<State>) {
  const [Context, useApi] = provided<StoreApi<State>>(name);
  function Provider({ of, children }: { of: Of; children: ReactNode }) {
    const [store] = useState(() => make(of));
    return <Context value={store}>{children}</Context>;
  }
  const useOwn = <T,>(pick: (state: State) => T): T => useStore(useApi(), pick);
  return [Provider, useOwn] as const;
}

/** What a station provides to all its parts: a context, and the hook that reads it. */
export function provided<T>(name: string) {
  const Context = createContext<T | null>(null);
  const useProvided = (): T => {
    const value = useContext(Context);
    if (value === null) throw new Error(`${name} is read outside its station`);
    return value;
  };
  return [Context, useProvided] as const;
}
