export {
  INVENTORY_SORTS,
  inventoryFilter,
  inventoryRoutes,
  type InventoryFilter,
  type InventoryRow,
  type InventorySort,
  type KeptView,
} from './inventory.ts';
