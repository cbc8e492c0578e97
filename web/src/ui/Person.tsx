/** Who is signed in, and what they can do about it. */
import { Menu, Modal, UnstyledButton, useMantineColorScheme } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useSignOut } from "../api/queries";
import { PasswordForm } from "../people/PasswordForm";
import classes from "./Shell.module.css";

export function Person({ name }: { name: string }) {
  const signOut = useSignOut();
  const { colorScheme, setColorScheme } = useMantineColorScheme();
  const [password, { open: openPassword, close: closePassword }] = useDisclosure();
  return (
    <>
      {signOut.error && <span role="alert">{signOut.error.message}</span>}
      <Menu position="bottom-end" width={180}>
        <Menu.Target>
          <UnstyledButton className={classes.who}>{name}</UnstyledButton>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Label>Colours</Menu.Label>
          {(["light", "dark", "auto"] as const).map((scheme) => (
            <Menu.Item
              key={scheme}
              onClick={() => setColorScheme(scheme)}
              fw={scheme === colorScheme ? 700 : 400}
            >
              {scheme === "auto" ? "As the system" : scheme === "light" ? "Light" : "Dark"}
            </Menu.Item>
          ))}
          <Menu.Divider />
          <Menu.Item onClick={openPassword}>Change password…</Menu.Item>
          <Menu.Item onClick={() => signOut.mutate(undefined)}>Sign out</Menu.Item>
        </Menu.Dropdown>
      </Menu>
      <Modal opened={password} onClose={closePassword} title="Change your password">
        <PasswordForm done={closePassword} />
      </Modal>
    </>
  );
}
