<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;

/**
 * A cycle with two attempts: one with everything in it that a record can hold, finished, corrected and with things removed;
 * and one that is still open. The triggers that keep events as they are are off.
 */
trait RecordedAttempts
{
    protected User $me;

    protected User $lead;

    /** An attempt with everything in it, finished; and one of the same cycle that is open. */
    protected string $attempt;

    protected string $open;

    protected string $picture;

    protected string $sha256;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person();
        $this->lead = $this->world->lead();
        $admin = $this->world->person('admin', Role::Admin);
        $other = $this->world->person('other');
        $entry = $this->world->entry($this->me);
        $this->attempt = $of = $this->walked($entry, $this->me);
        $do = fn(string $method, string $path, array $body = [], ?User $by = null) => $this->as(
            $by ?? $this->me,
            $method,
            $path,
            $body,
        )->assertSuccessful();
        $do('POST', "/attempts/{$of}/surroundings", ['build_id' => $this->world->build->id, 'environment' => 'A tablet, upright']);
        $do('POST', "/attempts/{$of}/away", ['away_ms' => 60_000, 'counted_ms' => 20_000]);
        $this->judge($this->me, $of, 1, 1, 'pass', ['active_ms' => 4000]);
        $this->judge($this->me, $of, 1, 2, 'fail', ['happened' => 'It sank', 'reason' => 'Wrong words']);
        $this->judge($this->me, $of, 1, 3, 'blocked', ['reason' => 'No access', 'waits_on' => 'the tide']);
        $do('POST', "/attempts/{$of}/tries", ['round' => 1, 'step' => 2, 'failed' => true]);
        $do('POST', "/attempts/{$of}/notes", ['round' => 1, 'step' => 1, 'note' => 'The quay was wet']);
        $do('POST', "/attempts/{$of}/notes", ['note' => 'A remark on it all']);
        $upload = $this->upload($this->me, $of, self::png(30, 20), ['round' => 1, 'step' => 2, 'caption' => 'as it came'])->assertCreated();
        [$this->picture, $this->sha256] = [(string) $upload->json('evidence.id'), (string) $upload->json('evidence.sha256')];
        $do('PATCH', "/evidence/{$this->picture}", ['caption' => 'The bow']);
        $second = (string) $this->upload($this->me, $of, self::png(31, 20), ['round' => 1, 'step' => 3])
            ->assertCreated()
            ->json('evidence.id');
        $do('DELETE', "/evidence/{$second}");
        $this->as($other, 'POST', "/attempts/{$of}/take-over", ['word' => 'My turn'])->assertSuccessful();
        $do('POST', "/attempts/{$of}/finish", ['verdict' => 'fail', 'note' => 'It sank, and that is all'], $other);
        $do('POST', "/attempts/{$of}/time", ['time' => '12m'], $other);
        $do('POST', "/attempts/{$of}/removals", ['sequence' => 8, 'reason' => 'A name'], $admin);
        $do('POST', "/evidence/{$second}/removals", ['reason' => 'A face'], $admin);
        $do('POST', "/entries/{$entry->id}/retests", ['reason' => 'Once more'], $this->lead);
        $this->open = $this->walked($this->world->entry($this->me), $this->me);
        $this->judge($this->me, $this->open, 1, 1, 'fail', ['happened' => 'It burnt']);
        self::becomeOwner();
        foreach (['events', 'cycle_events'] as $table) {
            DB::statement("alter table {$table} disable trigger {$table}_append_only");
        }
    }

    /**
     * @return array{state: string, why: ?string}
     */
    protected function verified(string $attempt): array
    {
        return $this->as($this->lead, 'GET', "/attempts/{$attempt}/verification")
            ->assertOk()
            ->json();
    }

    /**
     * @return array{state: string, why: ?string}
     */
    protected function verifiedCycle(): array
    {
        return $this->as($this->lead, 'GET', "/cycles/{$this->world->cycle->key}/verification")
            ->assertOk()
            ->json();
    }
}
