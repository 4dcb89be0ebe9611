"use client";

import {
  Button,
  Dialog,
  DialogTrigger,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Menu,
  MenuItem,
  MenuTrigger,
  Modal,
  Popover,
  SearchField,
} from "react-aria-components";
import styled from "styled-components";

const Box = styled.div`
  padding: 8px;
`;

/** Nothing but the platform: what any page with these parts loads. */
export default function Bare() {
  return (
    <Box>
      <SearchField>
        <Label>Find</Label>
        <Input />
      </SearchField>
      <ListBox aria-label="Lines">
        <ListBoxItem>One</ListBoxItem>
      </ListBox>
      <MenuTrigger>
        <Button>Menu</Button>
        <Popover>
          <Menu>
            <MenuItem>One</MenuItem>
          </Menu>
        </Popover>
      </MenuTrigger>
      <DialogTrigger>
        <Button>Dialog</Button>
        <Modal>
          <Dialog>Hello</Dialog>
        </Modal>
      </DialogTrigger>
    </Box>
  );
}
