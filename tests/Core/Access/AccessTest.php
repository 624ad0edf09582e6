<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Access;

use LucidStep\Core\Access\Access;
use LucidStep\Core\Access\AccessPolicies;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Access\Role;
use PHPUnit\Framework\TestCase;

/**
 * Who may what: the table of the rules, and what a project may say of it.
 */
final class AccessTest extends TestCase
{
    /** From which role on, where the project says nothing. */
    private const LEAST = [
        'read' => Role::Reader,
        'see_evidence' => Role::Reader,
        'work_on_defects' => Role::Developer,
        'file_defects' => Role::Tester,
        'record' => Role::Tester,
        'write_cases' => Role::Tester,
        'lead' => Role::Lead,
        'administer' => Role::Admin,
        'remove_content' => Role::Admin,
    ];

    public function test_the_table_is_the_one_of_the_rules(): void
    {
        foreach (Permission::cases() as $permission) {
            self::assertSame(self::LEAST[$permission->value], Access::least($permission, new AccessPolicies()), $permission->value);
        }
        self::assertCount(\count(self::LEAST), Permission::cases());
    }

    public function test_a_project_narrows_two_of_them_and_nothing_else(): void
    {
        $closed = new AccessPolicies(false, false);
        $narrowed = [
            'see_evidence' => Role::Developer,
            'write_cases' => Role::Lead,
        ];
        foreach (Permission::cases() as $permission) {
            self::assertSame($narrowed[$permission->value] ?? self::LEAST[$permission->value], Access::least($permission, $closed));
        }
    }

    public function test_each_role_may_all_that_those_before_it_may_and_nobody_without_a_part_may_anything(): void
    {
        foreach ([true, false] as $evidence) {
            foreach ([true, false] as $cases) {
                $policies = new AccessPolicies($evidence, $cases);
                $before = [];
                foreach (Access::ROLES as $role) {
                    $may = array_column(Access::of($role, $policies), 'value');
                    self::assertSame([], array_diff($before, $may), $role->value);
                    self::assertContains('read', $may);
                    $before = $may;
                }
                self::assertSame(array_column(Permission::cases(), 'value'), $before, 'an admin may all');
                foreach (Permission::cases() as $permission) {
                    self::assertFalse(Access::allows(null, $permission, $policies));
                }
            }
        }
        self::assertSame(\count(Role::cases()), \count(Access::ROLES));
    }

    public function test_what_is_stored_is_read_with_what_is_missing_or_of_another_kind_left_as_usual(): void
    {
        self::assertEquals(new AccessPolicies(), AccessPolicies::fromArray([]));
        self::assertEquals(
            new AccessPolicies(),
            AccessPolicies::fromArray(['readers_see_evidence' => 'no', 'testers_write_cases' => null]),
        );
        foreach ([[true, false, true], [false, true, false], [false, false, true]] as $of) {
            $policies = new AccessPolicies(...$of);
            self::assertEquals($policies, AccessPolicies::fromArray($policies->toArray()));
        }
    }

    public function test_the_page_of_the_documentation_says_where_the_project_decides(): void
    {
        $page = Access::markdown();
        self::assertSame(\count(Permission::cases()) + 2, substr_count($page, "\n"));
        self::assertSame(2, substr_count($page, 'as the project says'));
        self::assertStringContainsString('| walk entries and record what was seen | – | – | yes | yes | yes |', $page);
    }
}
