import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { answerOf, api, type Shapes } from "../api/client";
import { keys } from "../api/queries";

/** Who is in a project. */
export function useMembers(projectId: string) {
  return useQuery({
    queryKey: keys.members(projectId),
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/members", { params: { path: { project_id: projectId } } }),
      ),
  });
}

/** The links with which people without an account look at a project. */
export function useGuestLinks(projectId: string) {
  return useQuery({
    queryKey: [...keys.members(projectId), "guests"],
    queryFn: () =>
      answerOf(
        api.GET("/api/projects/{project_id}/guest-links", { params: { path: { project_id: projectId } } }),
      ),
  });
}

/** What is done with those who are in a project, and with its guest links. */
export function useMemberActs(projectId: string) {
  const client = useQueryClient();
  const told = {
    onSettled: async () => {
      await client.invalidateQueries({ queryKey: keys.members(projectId) });
      await client.invalidateQueries({ queryKey: keys.mine(projectId) });
      await client.invalidateQueries({ queryKey: keys.projects });
    },
  };
  const at = { path: { project_id: projectId } };
  const one = (member_id: string) => ({ params: { path: { project_id: projectId, member_id } } });
  return {
    add: useMutation({
      mutationFn: (body: Shapes["NewMember"]) =>
        answerOf(api.POST("/api/projects/{project_id}/members", { params: at, body })),
      ...told,
    }),
    change: useMutation({
      mutationFn: ({ id, role }: { id: string; role: Shapes["Mine"]["role"] }) =>
        answerOf(
          api.PUT("/api/projects/{project_id}/members/{member_id}/role", { ...one(id), body: { role } }),
        ),
      ...told,
    }),
    remove: useMutation({
      mutationFn: (id: string) =>
        answerOf(api.DELETE("/api/projects/{project_id}/members/{member_id}", one(id))),
      ...told,
    }),
    handOver: useMutation({
      mutationFn: (id: string) =>
        answerOf(api.POST("/api/projects/{project_id}/members/{member_id}/hand-over", one(id))),
      ...told,
    }),
    leave: useMutation({
      mutationFn: () => answerOf(api.POST("/api/projects/{project_id}/leave", { params: at })),
      ...told,
    }),
    makeLink: useMutation({
      mutationFn: (body: Shapes["NewGuestLink"]) =>
        answerOf(api.POST("/api/projects/{project_id}/guest-links", { params: at, body })),
      ...told,
    }),
    endLink: useMutation({
      mutationFn: (link_id: string) =>
        answerOf(
          api.DELETE("/api/projects/{project_id}/guest-links/{link_id}", {
            params: { path: { project_id: projectId, link_id } },
          }),
        ),
      ...told,
    }),
  };
}

/** The names in a project of which it is not known whose they are, and those of which somebody said it. */
export function useNames(projectId: string) {
  return useQuery({
    queryKey: [...keys.members(projectId), "names"],
    queryFn: () =>
      answerOf(api.GET("/api/projects/{project_id}/names", { params: { path: { project_id: projectId } } })),
  });
}

/** Saying whose a name is, and forgetting it. */
export function useNameActs(projectId: string) {
  const client = useQueryClient();
  const params = { path: { project_id: projectId } };
  const told = {
    onSuccess: (shown: Shapes["NamesShown"]) =>
      client.setQueryData([...keys.members(projectId), "names"], shown),
  };
  return {
    match: useMutation({
      mutationFn: (body: Shapes["NameMatch"]) =>
        answerOf(api.PUT("/api/projects/{project_id}/names", { params, body })),
      ...told,
    }),
    forget: useMutation({
      mutationFn: (name: string) =>
        answerOf(api.POST("/api/projects/{project_id}/names/forget", { params, body: { name } })),
      ...told,
    }),
  };
}
