<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * Who may what in a project: the one table, asked by every policy. Each role may all that those before it may.
 */
final class Access
{
    /** Roles from the least on. */
    public const ROLES = [Role::Reader, Role::Developer, Role::Tester, Role::Lead, Role::Admin];

    /**
     * @param  ?Role  $role null for who has no part in the project
     */
    public static function allows(?Role $role, Permission $permission, AccessPolicies $policies): bool
    {
        return true === $role?->isAtLeast(self::least($permission, $policies));
    }

    /**
     * The least role that may it, as the project says.
     */
    public static function least(Permission $permission, AccessPolicies $policies): Role
    {
        return match ($permission) {
            Permission::Read => Role::Reader,
            Permission::SeeEvidence => $policies->readersSeeEvidence ? Role::Reader : Role::Developer,
            Permission::WorkOnDefects => Role::Developer,
            Permission::FileDefects, Permission::Record => Role::Tester,
            Permission::WriteCases => $policies->testersWriteCases ? Role::Tester : Role::Lead,
            Permission::Lead => Role::Lead,
            Permission::Administer, Permission::RemoveContent => Role::Admin,
        };
    }

    /**
     * @return list<Permission> all that somebody may
     */
    public static function of(Role $role, AccessPolicies $policies): array
    {
        return array_values(array_filter(Permission::cases(), static fn(Permission $p): bool => self::allows($role, $p, $policies)));
    }

    /**
     * The table as a page of the documentation has it.
     *
     * @return string Markdown
     */
    public static function markdown(): string
    {
        [$open, $closed] = [new AccessPolicies(true, true), new AccessPolicies(false, false)];
        $lines = [
            '| a person may … | ' . implode(' | ', array_map(static fn(Role $r): string => $r->value, self::ROLES)) . ' |',
            '|---|' . str_repeat('---|', \count(self::ROLES)),
        ];
        foreach (Permission::cases() as $permission) {
            $cells = array_map(
                static fn(Role $r): string => match ([self::allows($r, $permission, $open), self::allows($r, $permission, $closed)]) {
                    [true, true] => 'yes',
                    [true, false] => 'as the project says',
                    default => '–',
                },
                self::ROLES,
            );
            $lines[] = "| {$permission->words()} | " . implode(' | ', $cells) . ' |';
        }

        return implode("\n", $lines) . "\n";
    }
}
