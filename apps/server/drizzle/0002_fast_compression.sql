-- Plans and diffs are large enough to be compressed. lz4 takes a fraction of the time that the default takes; where the
-- database was built without it, the default stays.
do $$ begin
  alter table run alter column plan set compression lz4;
  alter table record_change alter column diff set compression lz4;
exception when feature_not_supported then null;
end $$;
