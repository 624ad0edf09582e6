<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        $this->fields();
        $this->relations();
        $this->lists();
        $this->search();
        // What a defect was before an act on many, and which version the act made of it.
        Schema::create('bulk_act_defects', static function (Blueprint $table): void {
            $table->foreignUuid('act_id')->constrained('bulk_acts')->cascadeOnDelete();
            $table->foreignUuid('defect_id')->constrained()->cascadeOnDelete();
            $table->integer('version');
            $table->jsonb('before');
            $table->primary(['act_id', 'defect_id']);
            $table->index('defect_id');
        });
    }

    private function fields(): void
    {
        Schema::table('defects', static function (Blueprint $table): void {
            $table->text('preconditions')->default('');
            $table->text('steps')->default('');
            $table->text('environment')->default('');
            $table->foreignUuid('configuration_id')->nullable()->constrained()->nullOnDelete();
            $table->string('component', 60)->default('');
            $table->jsonb('labels')->default('[]');
            $table->jsonb('custom')->default('{}');
            $table->index(['project_id', 'component']);
            $table->index(['project_id', 'build_id']);
            $table->index(['project_id', 'reporter_id']);
        });
        DB::statement('create index defects_labels on defects using gin (labels)');
        Schema::table('defect_links', static function (Blueprint $table): void {
            // Ids of the captures that belong to it; null: all of the step, those that are still to come too.
            $table->jsonb('evidence')->nullable();
        });
        // What was one text becomes fields of their own.
        foreach (DB::table('defects')->where('body', '<>', '')->lazyById(500) as $defect) {
            DB::table('defects')->where('id', $defect->id)->update(self::parts($defect));
        }
        DB::statement(
            'update defects d set configuration_id = (select a.configuration_id from defect_links l join attempts a ' .
                'on a.id = l.attempt_id where l.defect_id = d.id order by l.created_at limit 1)',
        );
    }

    /**
     * @return array<string, string>
     */
    private static function parts(object $defect): array
    {
        $parts = preg_split(
            '/^## (Preconditions|Steps|Expected|Actual|Evidence|Links)\n/m',
            (string) $defect->body,
            -1,
            \PREG_SPLIT_DELIM_CAPTURE,
        ) ?: [''];
        $found = ['preconditions' => '', 'steps' => '', 'environment' => ''];
        $rest = [];
        foreach (explode("\n", trim($parts[0])) as $line) {
            match (true) {
                1 === preg_match('/^- \*\*Environment:\*\* (.*)$/', $line, $m) => ($found['environment'] = $m[1]),
                1 === preg_match('/^- \*\*(?:Build|Configuration):\*\* /', $line) => null,
                default => ($rest[] = $line),
            };
        }
        $rest = [trim(implode("\n", $rest))];
        for ($at = 1; $at + 1 < \count($parts); $at += 2) {
            [$name, $text] = [strtolower($parts[$at]), trim($parts[$at + 1])];
            match (true) {
                isset($found[$name]) => ($found[$name] = $text),
                \in_array($name, ['expected', 'actual'], true) && $text === trim((string) $defect->{$name}) => null,
                default => ($rest[] = "## {$parts[$at]}\n\n{$text}"),
            };
        }

        return [...$found, 'body' => trim(implode("\n\n", array_filter($rest)))];
    }

    private function relations(): void
    {
        Schema::create('defect_relations', static function (Blueprint $table): void {
            $table->foreignUuid('from_id')->constrained('defects')->cascadeOnDelete();
            $table->foreignUuid('to_id')->constrained('defects')->cascadeOnDelete();
            $table->string('kind', 12);
            $table->foreignUuid('by_id')->constrained('users');
            $table->timestampTz('created_at', 6);
            $table->primary(['from_id', 'to_id', 'kind']);
            $table->index('to_id');
        });
        DB::unprepared(
            <<<'SQL'
            alter table defect_relations add constraint defect_relations_kind
                check (kind in ('under', 'caused_by', 'blocks', 'relates_to'));
            alter table defect_relations add constraint defect_relations_not_itself check (from_id <> to_id);
            create unique index defect_relations_one_parent on defect_relations (from_id) where kind = 'under';
            SQL
            ,
        );
        Schema::create('defect_watchers', static function (Blueprint $table): void {
            $table->foreignUuid('defect_id')->constrained()->cascadeOnDelete();
            $table->foreignUuid('user_id')->constrained()->cascadeOnDelete();
            $table->timestampTz('created_at', 6);
            $table->primary(['defect_id', 'user_id']);
            $table->index('user_id');
        });
    }

    private function lists(): void
    {
        DB::unprepared(
            <<<'SQL'
            alter table list_items drop constraint list_items_list_check;
            alter table list_items add constraint list_items_list_check check (list in ('type', 'priority', 'milestone', 'phase',
                'reason_pass', 'reason_fail', 'reason_blocked', 'reason_not_applicable', 'component'));
            -- Fields that a project added, to its cases or to its defects.
            alter table custom_fields add column subject varchar(10) not null default 'case' check (subject in ('case', 'defect'));
            drop index custom_fields_name;
            create unique index custom_fields_name on custom_fields (project_id, subject, lower(name));
            drop trigger custom_fields_logged on custom_fields;
            create trigger custom_fields_logged after insert or delete or update of name, kind, choices, required, subject on custom_fields
                for each row execute function lucid_log_setup('name', 'kind', 'choices', 'required', 'subject');
            alter table saved_filters add column subject varchar(10) not null default 'case' check (subject in ('case', 'defect'));
            alter table saved_filters drop constraint saved_filters_project_id_user_id_name_unique;
            alter table bulk_acts add column subject varchar(10) not null default 'case' check (subject in ('case', 'defect'));
            create unique index saved_filters_name on saved_filters (project_id, user_id, subject, name);
            SQL
            ,
        );
    }

    private function search(): void
    {
        DB::unprepared(
            <<<'SQL'
            alter table defects add column searched text generated always as (lucid_fold(key || ' ' || title || ' ' || actual || ' ' ||
                expected || ' ' || preconditions || ' ' || steps || ' ' || environment || ' ' || body)) stored;
            create index defects_searched on defects using gin (searched gin_trgm_ops);
            alter table defect_comments add column folded text generated always as (lucid_fold(text)) stored;
            create index defect_comments_folded on defect_comments using gin (folded gin_trgm_ops);
            SQL
            ,
        );
    }

    public function down(): void
    {
        DB::unprepared(
            <<<'SQL'
            alter table defect_comments drop column folded;
            delete from bulk_acts where subject <> 'case';
            alter table bulk_acts drop column subject;
            delete from saved_filters where subject <> 'case';
            alter table saved_filters drop column subject;
            alter table saved_filters add unique (project_id, user_id, name);
            drop trigger custom_fields_logged on custom_fields;
            create trigger custom_fields_logged after insert or delete or update of name, kind, choices, required on custom_fields
                for each row execute function lucid_log_setup('name', 'kind', 'choices', 'required');
            delete from custom_fields where subject <> 'case';
            alter table custom_fields drop column subject;
            create unique index custom_fields_name on custom_fields (project_id, lower(name));
            delete from list_items where list = 'component';
            drop table bulk_act_defects, defect_watchers, defect_relations;
            alter table defect_links drop column evidence;
            alter table defects drop column searched, drop column preconditions, drop column steps, drop column environment,
                drop column configuration_id, drop column component, drop column labels, drop column custom;
            SQL
            ,
        );
    }
};
