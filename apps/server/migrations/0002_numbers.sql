-- Each workspace numbers its sources from a sequence of its own, so that writers need not wait for one another.
CREATE FUNCTION make_source_numbers() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	EXECUTE format('CREATE SEQUENCE source_numbers_%s AS integer MINVALUE 0 START WITH 0', NEW.number);
	RETURN NEW;
END
$$;--> statement-breakpoint
CREATE TRIGGER workspaces_numbers AFTER INSERT ON "workspaces" FOR EACH ROW EXECUTE FUNCTION make_source_numbers();--> statement-breakpoint
DO $$
DECLARE w record;
BEGIN
	FOR w IN SELECT number, numbers FROM "workspaces" LOOP
		EXECUTE format('CREATE SEQUENCE source_numbers_%s AS integer MINVALUE 0 START WITH %s', w.number, w.numbers);
	END LOOP;
END
$$;--> statement-breakpoint
ALTER TABLE "workspaces" DROP COLUMN "numbers";
