<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Database;

use Illuminate\Database\Connection;

/**
 * What the application's role may do in the database: read and write rows, but only add to what was recorded and to its logs.
 * So a fault in the application, or whoever gets hold of its password, cannot change the record, nor switch off what guards it.
 */
final class DatabaseRights
{
    /** Tables to which rows are only added, and the columns of them that may be written again. */
    public const APPEND_ONLY = [
        // A text that is taken out goes with its salt; a trigger lets nothing else through.
        'events' => ['payload', 'salts'],
        'cycle_events' => ['payload', 'salts'],
        'removals' => [],
        'cycle_log' => ['reason'],
        'case_log' => [],
        'requirement_log' => [],
    ];

    /** Tables that are read: what is written to them, the owner's migrations and triggers write. */
    private const READ_ONLY = [
        'migrations',
        'setup_log',
        'requirement_links',
        'coverage_cells',
        'round_outcomes',
        'entry_states',
        'requirement_places',
        'case_absences',
        'build_places',
    ];

    /**
     * Gives a role what it may do in every table there is now, and takes away what it had beyond.
     *
     * @param  Connection  $owner as the owner of the tables
     */
    public static function grant(Connection $owner, string $role): void
    {
        $grammar = $owner->getQueryGrammar();
        $to = $grammar->wrap($role);
        $statements = [
            "revoke all on all tables in schema public from {$to}",
            "grant usage, select on all sequences in schema public to {$to}",
        ];
        foreach (self::tables($owner) as $table) {
            $may = match (true) {
                \in_array($table, self::READ_ONLY, true) => 'select',
                isset(self::APPEND_ONLY[$table]) => 'select, insert',
                default => 'select, insert, update, delete',
            };
            $statements[] = "grant {$may} on {$grammar->wrapTable($table)} to {$to}";
            $columns = self::APPEND_ONLY[$table] ?? [];
            if ([] !== $columns) {
                $statements[] = "grant update ({$grammar->columnize($columns)}) on {$grammar->wrapTable($table)} to {$to}";
            }
        }
        $owner->transaction(static function () use ($owner, $statements): void {
            foreach ($statements as $statement) {
                $owner->statement($statement);
            }
        });
    }

    /**
     * What the application's role may do beyond its rights, or may not do that it must.
     *
     * @param  Connection  $app as the application has it
     *
     * @return list<string> a sentence each; none when all is as it should be
     */
    public static function problems(Connection $app): array
    {
        $role = $app->selectOne('select current_user as name, rolsuper as super from pg_roles where rolname = current_user');
        $name = (string) $role->name;
        if ((bool) $role->super) {
            return ["{$name} is a superuser: nothing holds it back."];
        }
        $problems = [];
        foreach (self::tables($app) as $table) {
            $owner = $app->scalar("select pg_has_role(current_user, relowner, 'usage') from pg_class where oid = ?::regclass", [$table]);
            if ((bool) $owner) {
                return [
                    "{$name} owns the table {$table}, so that it may take away whatever guards it. Migrations must run as another role.",
                ];
            }
            $may = static fn(string $right): bool => (bool) $app->scalar('select has_table_privilege(?, ?)', [$table, $right]);
            $expected = \in_array($table, self::READ_ONLY, true)
                ? ['SELECT']
                : (isset(self::APPEND_ONLY[$table])
                    ? ['SELECT', 'INSERT']
                    : ['SELECT', 'INSERT', 'UPDATE', 'DELETE']);
            foreach (['SELECT', 'INSERT', 'UPDATE', 'DELETE', 'TRUNCATE', 'TRIGGER'] as $right) {
                if ($may($right) !== \in_array($right, $expected, true)) {
                    $problems[] = $name . ($may($right) ? ' may ' : ' may not ') . strtolower($right) . " {$table}.";
                }
            }
        }

        return $problems;
    }

    /**
     * @return list<string>
     */
    private static function tables(Connection $connection): array
    {
        return array_column($connection->select("select tablename from pg_tables where schemaname = 'public' order by 1"), 'tablename');
    }
}
