<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\ApiOperations;
use LucidStep\Tests\Support\DescribedAnswers;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\FittingBodies;
use LucidStep\Tests\Support\Walks;
use LucidStep\Tests\Support\WritesByRole;

/**
 * Every write of the API with every role: whoever may not is refused with 403 and changes nothing, whoever may is not.
 */
final class RolesTest extends FeatureTestCase
{
    use ApiOperations;
    use DescribedAnswers;
    use Everything;
    use FittingBodies;
    use Walks;
    use WritesByRole;

    private const ROLES = [Role::Reader, Role::Developer, Role::Tester, Role::Lead, Role::Admin];

    protected function setUp(): void
    {
        parent::setUp();
        $this->spec = self::description();
        $this->ids = $this->everything($this->world);
        foreach (Role::cases() as $role) {
            $this->world->person($role->value, $role);
        }
        $this->ids['person'] = $this->world->person('somebody else')->id;
        DB::table('case_exports')->update(['author_id' => $this->ids['person']]);
    }

    public function test_every_write_is_allowed_from_one_role_on_answers_as_described_and_changes_nothing_for_those_below(): void
    {
        $least = $this->least();
        $faults = $fitting = [];
        foreach ($this->operations(['post', 'put', 'patch', 'delete']) as [$method, $path, $operation]) {
            if (\in_array("{$method} {$path}", [...self::OWNERS, ...self::GUESTS], true)) {
                continue;
            }
            $from = $least["{$method} {$path}"] ?? null;
            if (null === $from) {
                $faults[] = "{$method} {$path} is in no role's list";

                continue;
            }
            $body = $this->body($path) ?? $this->plausible($operation);
            foreach (self::ROLES as $at => $role) {
                $allowed = $at >= array_search($from, self::ROLES, true);
                $before = $allowed ? [] : $this->everythingKept();
                DB::beginTransaction();
                $answer = $this->as($this->world->person($role->value, $role), $method, $this->real($path), $body);
                $changed = !$allowed && $this->everythingKept() !== $before;
                DB::rollBack();
                $status = $answer->getStatusCode();
                if ($allowed && $status < 300) {
                    $fitting[] = "{$method} {$path}";
                    $misfit = self::misfitOf($this->spec['components'], $operation, $answer, "{$method} {$path} as {$role->value}");
                    $faults = [...$faults, ...null === $misfit ? [] : [$misfit]];
                }
                $refused = isset(self::HIDDEN["{$method} {$path}"]) ? 404 : 403;
                if (($allowed && \in_array($status, [401, 403, 500], true)) || (!$allowed && $refused !== $status) || $changed) {
                    $faults[] = "{$method} {$path} as {$role->value}: {$status}" . ($changed ? ', and something changed' : '');
                }
            }
        }
        self::assertSame([], $faults);
        self::assertGreaterThanOrEqual(60, \count(array_unique($fitting)), 'so many answered as they are described');
    }

    /**
     * Whatever is in a body, and however much of it: who may not is told so, and nothing of what is wrong with the body. No more is
     * asked of the database than who they are and what the address leads to.
     */
    public function test_whoever_may_not_is_refused_before_their_body_is_looked_at(): void
    {
        $this->looks = false;
        $deep = array_reduce(range(1, 200), static fn(array $in): array => ['steps' => [$in]], []);
        $worst = [
            'nothing' => [],
            'nonsense' => ['steps' => 'x', 'ids' => 7, 'rows' => null, 'picks' => ['filter' => ['nosuch' => 1]], 'revision' => '1e400'],
            'deep' => $deep,
            'much' => ['ids' => array_fill(0, 2000, 'x'), 'rows' => array_fill(0, 500, ['cells' => ['a', 'b']]), 'axes' => $deep],
        ];
        $faults = [];
        $tried = 0;
        foreach ($this->least() as $operation => $from) {
            [$method, $path] = explode(' ', $operation);
            foreach (self::ROLES as $role) {
                if ($role->isAtLeast($from) || \in_array($operation, self::OWN, true)) {
                    break;
                }
                foreach ($worst as $what => $body) {
                    $status = 0;
                    $type = '';
                    $queries = $this->queries(function () use ($method, $path, $role, $body, &$status, &$type): void {
                        $person = $this->world->person($role->value, $role);
                        $answer = $this->as($person, $method, $this->real($path), $body);
                        [$status, $type] = [$answer->getStatusCode(), (string) $answer->json('type')];
                    });
                    $tried++;
                    $refused = isset(self::HIDDEN[$operation]) ? [404, 'not-found'] : [403, 'not-allowed'];
                    if ([$status, substr($type, \strlen('urn:lucid-step:problem:'))] !== $refused || $queries > 5) {
                        $faults[] = "{$operation} as {$role->value}, {$what}: {$status} {$type} after {$queries} queries";
                    }
                }
            }
        }
        self::assertSame([], $faults);
        self::assertGreaterThan(900, $tried);
    }

    /**
     * Owners look after the installation: no role of a project is enough for it, and it is enough for no project.
     */
    public function test_owners_alone_look_after_the_installation_and_see_no_project_by_it(): void
    {
        $faults = [];
        foreach (self::OWNERS as $operation) {
            [$method, $path] = explode(' ', $operation);
            foreach (self::ROLES as $role) {
                $before = $this->everythingKept();
                $answer = $this->as($this->world->person($role->value, $role), $method, $this->real($path), ['is_owner' => true]);
                if (403 !== $answer->getStatusCode() || $this->everythingKept() !== $before) {
                    $faults[] = "{$operation} as {$role->value}: {$answer->getStatusCode()}";
                }
            }
        }
        $owner = User::query()->create(['name' => 'Owner', 'email' => 'owner@example.test', 'password' => 'x', 'is_owner' => true]);
        foreach ($this->operations(['get', 'post', 'put', 'patch', 'delete']) as [$method, $path, $operation]) {
            $inProject = str_contains($path, '{') && !str_starts_with($path, '/installation');
            if ($inProject) {
                $answer = $this->as($owner, $method, $this->real($path), 'GET' === $method ? [] : $this->plausible($operation));
                if (!\in_array($answer->getStatusCode(), [404, 403], true)) {
                    $faults[] = "{$method} {$path} as an owner: {$answer->getStatusCode()}";
                }
            }
        }
        self::assertSame([], $faults);
    }

    /**
     * Reading is everybody's but for what a lead decides from.
     */
    public function test_every_read_is_open_to_every_role_but_what_waits_for_a_lead(): void
    {
        $faults = [];
        foreach ($this->operations(['get']) as [$method, $path]) {
            $statuses = [];
            foreach (self::ROLES as $role) {
                $statuses[] = $this->as($this->world->person($role->value, $role), $method, $this->real($path))->getStatusCode();
            }
            $expected = match ($path) {
                '/projects/{project}/queue', '/projects/{project}/setup-log' => [403, 403, 403, 200, 200],
                '/installation' => [403, 403, 403, 403, 403],
                '/projects/{project}/tracker' => [403, 403, 403, 403, 200],
                // Whether there are such mails is not told.
                '/mails' => [404, 404, 404, 200, 200],
                default => array_fill(0, 5, $statuses[4]),
            };
            if ($expected !== $statuses || \in_array(500, $statuses, true)) {
                $faults[] = "{$path}: " . implode(', ', $statuses);
            }
        }
        self::assertSame([], $faults);
    }

    /**
     * @return array<string, Role> by operation
     */
    private function least(): array
    {
        $least = self::HIDDEN;
        foreach (self::FROM as $role => $operations) {
            $least += array_fill_keys($operations, Role::from($role));
        }

        return $least;
    }
}
