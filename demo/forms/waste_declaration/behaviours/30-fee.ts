/** Fee: the volumes by the tariff of the waste table. */

const rate = (code: Parameters<typeof tables.waste_tariffs.find>[0]) => tables.waste_tariffs.find(code)?.rate ?? 0;

keep("fee", () => {
  const fee =
    (fields.oily_volume.value ?? 0) * rate("oily")
    + (fields.residue_volume.value ?? 0) * rate("residue")
    + (fields.garbage_volume.value ?? 0) * rate("garbage")
    + (fields.sewage_volume.value ?? 0) * rate("sewage");
  fields.fee.value = fields.wastes.empty ? null : fee;
});

always("nobody is paid for waste", () => (fields.fee.value ?? 0) >= 0);
