<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Data\TrackerTry;
use LucidStep\App\Areas\Defects\Jobs\SendTrackerCalls;
use LucidStep\App\Areas\Defects\Tracker\OutsideHttp;
use LucidStep\App\Areas\Defects\Tracker\TrackerAway;
use LucidStep\App\Areas\Defects\Tracker\TrackerRefused;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Defects\Tracker\OutsideAddress;
use LucidStep\Core\Defects\Tracker\TrackerMapping;

/**
 * Sets up the tracker outside that a project files into, and tries it out.
 */
final readonly class SetUpTracker
{
    public function __construct(private OutsideHttp $http, private PublishChange $announce) {}

    /**
     * @param  array{address?: string, token?: ?string, enabled?: bool, sends_each?: bool, mapping?: array<array-key, mixed>}  $said
     *     what is left out stays
     *
     * @throws ValidationException when the address is none
     */
    public function save(Project $project, array $said): TrackerConnection
    {
        $connection = TrackerConnection::query()->where('project_id', $project->id)->lockForUpdate()->first();
        if (isset($said['address'])) {
            $said['address'] = rtrim(trim($said['address']), '/');
            try {
                OutsideAddress::hostOf($said['address']);
            } catch (\DomainException $e) {
                throw ValidationException::withMessages(['address' => $e->getMessage()]);
            }
        } elseif (null === $connection) {
            throw ValidationException::withMessages(['address' => 'Say where the tracker is.']);
        }
        // Another place does not get the token of this one.
        $isElsewhere = null !== $connection && isset($said['address']) && $said['address'] !== $connection->address;
        if (isset($said['mapping'])) {
            $said['mapping'] = TrackerMapping::fromArray($said['mapping'])->toArray();
        }
        $connection ??= new TrackerConnection(['project_id' => $project->id, 'token' => '', 'secret' => Str::random(48), 'mapping' => []]);
        $connection->fill([
            ...array_filter($said, static fn(mixed $v): bool => null !== $v),
            ...$isElsewhere ? ['token' => $said['token'] ?? '', 'cursor' => ''] : [],
            'failures' => 0,
            'resting_until' => null,
            'problem' => '',
        ]);
        $connection->save();
        SendTrackerCalls::dispatch($project->id)->afterCommit();
        ($this->announce)($project->id, 'defect', $project->id);

        return $connection;
    }

    public function remove(Project $project): void
    {
        TrackerConnection::query()->where('project_id', $project->id)->delete();
        ($this->announce)($project->id, 'defect', $project->id);
    }

    /**
     * @return string a new secret, with which the tracker signs what it tells; shown this once
     */
    public function renewSecret(TrackerConnection $connection): string
    {
        $secret = Str::random(48);
        $connection->update(['secret' => $secret]);

        return $secret;
    }

    /**
     * Files a test report, and shows what comes back.
     */
    public function try(TrackerConnection $connection): TrackerTry
    {
        $mapping = $connection->map();
        [$method, $path] = $mapping->request('file');
        $asked = "{$method} {$connection->address}{$path}";
        $headers = array_map(static fn(string $v): string => str_replace('{token}', $connection->token, $v), $mapping->headers);
        try {
            $answer = $this->http->ask(
                $method,
                $connection->address . $path,
                ['Idempotency-Key' => (string) Str::uuid7(), ...$headers],
                [
                    'json' => [
                        $mapping->fields['title'] => 'A test of the connection',
                        $mapping->fields['body'] => 'Sent to try the connection out. It can be deleted.',
                        $mapping->fields['severity'] => 'trivial',
                    ],
                ],
            );
        } catch (TrackerAway | TrackerRefused $e) {
            return new TrackerTry($asked, null, '', '', $e->getMessage());
        }
        $shown = '' === $connection->token ? $answer->excerpt(2000) : str_replace($connection->token, '…', $answer->excerpt(2000));
        if ($answer->status < 200 || $answer->status >= 300) {
            return new TrackerTry($asked, $answer->status, $shown, '', TrackerRefused::answered($answer)->getMessage());
        }
        try {
            $key = $mapping->read('key', $answer->json());
        } catch (TrackerRefused $e) {
            return new TrackerTry($asked, $answer->status, $shown, '', $e->getMessage());
        }
        $key = \is_string($key) ? $key : '';

        return new TrackerTry($asked, $answer->status, $shown, $key, '' === $key ? "No key stands at \"{$mapping->answers['key']}\"." : '');
    }
}
