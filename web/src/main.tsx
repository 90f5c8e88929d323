import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import "./app.css";
import { PiecesPage } from "./bench/PiecesPage";
import { PiecePage } from "./piece/PiecePage";
import { Lost } from "./ui/Lost";

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } });

const router = createBrowserRouter([
  { path: "/", element: <PiecesPage />, errorElement: <Lost /> },
  { path: "/pieces/:id/:zone?/:view?", element: <PiecePage />, errorElement: <Lost /> },
  { path: "*", element: <Lost /> },
]);

const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </StrictMode>,
  );
}
