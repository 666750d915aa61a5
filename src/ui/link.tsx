import NextLink from "next/link";
import type { ComponentProps } from "react";

/** A link to a page of the application. What it leads to is fetched when it is followed: the server is near, and a floor has hundreds of them. */
export function Link(props: Omit<ComponentProps<typeof NextLink>, "prefetch">) {
  return <NextLink {...props} prefetch={false} />;
}
