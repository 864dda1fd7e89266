<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Otp\Otp;
use ParagonIE\ConstantTime\Base32;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\Security\Http\Event\CheckPassportEvent;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\SealedSecrets;

/**
 * Codes of an authenticator in addition to the password: RFC 6238, six digits, half a minute each, one step either way.
 */
final readonly class SecondFactor
{
    private const PERIOD = 30;
    private const DRIFT = 1;
    private const RECOVERY_CODES = 10;

    public function __construct(
        private People $people,
        private RequestStack $requests,
        private SealedSecrets $secrets,
        private Now $now,
    ) {
    }

    /** After the password: asks for the authenticator's code, or for a recovery code. */
    #[AsEventListener(priority: -10)]
    public function ask(CheckPassportEvent $event): void
    {
        $account = $event->getPassport()->getUser();
        if (!$account instanceof Account || $account->person->factorSecret === null) {
            return;
        }
        $code = $this->requests->getCurrentRequest()?->request->getString('_code') ?? '';
        if (!$this->accepts($account, $code)) {
            throw new SecondFactorNeeded();
        }
    }

    /** @return string 160 bits in base 32 */
    public static function newSecret(): string
    {
        return Base32::encodeUpperUnpadded(random_bytes(20));
    }

    /** The text of the QR code for an authenticator. */
    public static function address(Account $account, string $secret): string
    {
        $label = rawurlencode('Verjuicer: '.$account->site->name.' ('.$account->person->login.')');

        return "otpauth://totp/$label?secret=$secret&issuer=Verjuicer";
    }

    /** @return int|null the step of time this code is of; null where it is of none that is near */
    public function step(string $secret, string $code): ?int
    {
        $digits = preg_replace('/\s+/', '', $code) ?? '';
        if (preg_match('/^\d{6}$/D', $digits) !== 1) {
            return null;
        }
        $now = intdiv($this->now->instant()->epoch, self::PERIOD);
        for ($step = $now - self::DRIFT; $step <= $now + self::DRIFT; ++$step) {
            if (hash_equals((new Otp())->hotp(Base32::decodeUpper($secret), $step), $digits)) {
                return $step;
            }
        }

        return null;
    }

    /** @return list<string>|null recovery codes, shown once; null for a wrong code */
    public function turnOn(Account $account, string $secret, string $code): ?array
    {
        $step = $this->step($secret, $code);
        if ($step === null) {
            return null;
        }
        $codes = [];
        while (\count($codes) < self::RECOVERY_CODES) {
            $codes[] = implode('-', str_split(strtolower(Base32::encodeUpperUnpadded(random_bytes(10))), 4));
        }
        $this->people->setFactor($account, $this->secrets->sealed($secret), $step, array_map(self::hash(...), $codes));

        return $codes;
    }

    /** Uses up a code. Of several requests with the same one, sent at once, one is let in. */
    public function accepts(Account $account, string $code): bool
    {
        $secret = $account->person->factorSecret;
        $step = $secret === null ? null : $this->step($this->secrets->opened($secret), $code);
        if ($secret === null || $step === null) {
            return $this->people->useRecoveryCode($account->person, self::hash(trim($code)));
        }
        if (!SealedSecrets::isSealed($secret)) {
            // Of before secrets were sealed.
            $this->people->sealFactorSecret($account->person, $this->secrets->sealed($secret));
        }

        return $this->people->useFactorStep($account->person, $step);
    }

    private static function hash(string $code): string
    {
        return hash('sha256', strtolower(str_replace('-', '', $code)));
    }
}
