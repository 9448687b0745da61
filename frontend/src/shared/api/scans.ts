import { useQuery } from "@tanstack/react-query";
import { api, kept, type Original } from "./client";
import { useChange } from "./queries";

const LOOK_MS = 3000; // how often the tray is looked into while it is open

/** What lies in the scan tray, which is watched while that is shown. */
export const useScans = () =>
  useQuery({ queryKey: ["scans"], queryFn: () => kept(api.GET("/api/scans")), refetchInterval: LOOK_MS, staleTime: 0 });

/** The hand that takes a scan out of the tray as a picture. */
export const useTakeScan = () =>
  useChange((name: string) => kept<Original>(api.POST("/api/scans/{name}", { params: { path: { name } } })));
