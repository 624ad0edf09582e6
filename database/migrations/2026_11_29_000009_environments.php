<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/**
 * Environments are a list of the project: chosen in cycles and attempts, and what the handset may show.
 */
return new class extends Migration {
    public function up(): void
    {
        DB::unprepared(
            <<<'SQL'
            create table environments (
                id uuid primary key,
                project_id uuid not null references projects (id) on delete cascade,
                name varchar(60) not null,
                address varchar(500) not null default '',
                build_id uuid references builds (id),
                notes text not null default '',
                position integer not null
            );
            create unique index environments_name on environments (project_id, lower(name));
            create index environments_build on environments (build_id);
            alter table cycles add column environment_id uuid references environments (id);
            create index cycles_environment on cycles (environment_id) where environment_id is not null;
            alter table attempts add column environment_id uuid references environments (id);
            create index attempts_environment on attempts (environment_id) where environment_id is not null;
            SQL
            ,
        );
        foreach (DB::table('projects')->get(['id', 'handset_addresses']) as $project) {
            /** @var list<array{name: string, address: string}> $listed */
            $listed = json_decode((string) $project->handset_addresses, true, 4, \JSON_THROW_ON_ERROR);
            foreach ($listed as $at => $one) {
                DB::table('environments')->insert([
                    'id' => (string) Str::uuid7(),
                    'project_id' => $project->id,
                    'name' => $one['name'],
                    'address' => $one['address'],
                    'position' => $at + 1,
                ]);
            }
        }
        DB::statement('alter table projects drop column handset_addresses');
    }

    public function down(): void
    {
        DB::statement("alter table projects add column handset_addresses jsonb not null default '[]'");
        DB::unprepared(
            <<<'SQL'
            update projects set handset_addresses = coalesce(
                (select jsonb_agg(jsonb_build_object('name', e.name, 'address', e.address) order by e.position)
                    from environments e where e.project_id = projects.id and e.address <> ''), '[]');
            alter table attempts drop column environment_id;
            alter table cycles drop column environment_id;
            drop table environments;
            SQL
            ,
        );
    }
};
