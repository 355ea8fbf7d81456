module UseCases
  # Reads one calendar file through, for the worker: progress is written now and then, a cancelled one stops, a broken
  # one leaves what was known before. After a crash another worker begins again when the lease is over.
  class CalendarReading < Base
    LEASE_S = 60
    TELL_EVERY_S = 0.1

    Stopped = Class.new(StandardError)

    def initialize(calendar_id, token, clock: Time)
      super(clock: clock)
      @mine = Records::Calendar.where(id: calendar_id, claim: token)
      @told_at = 0
    end

    def run
      calendar = @mine.includes(:person, :place).first or return
      owner = calendar.person || calendar.place
      read = Core::FreeBusy::Calendar.new(calendar.incoming, zone: Core::Zone[owner.time_zone], addresses: [calendar.person&.email].compact, ours: ours)
      tell(total: read.size)
      until_at = (now.to_datetime >> Calendars::HORIZON_MONTHS).to_time.utc
      spans = read.spans(now - Calendars::BACK_DAYS * 86_400, until_at) { |done| tell_now_and_then(done) }
      tell(done: read.size)
      Calendars.replace_spans(calendar, spans)
      write { @mine.update_all(["source = incoming, incoming = null, state = 'still', claim = null, leased_until = null, events = ?, warnings = ?, expanded_until = ?, succeeded_at = ?, last_error = null", read.size, JSON.generate(read.warnings.first(20)), until_at, now]) }
    rescue Core::Invalid => error
      write { @mine.update_all(state: "failed", incoming: nil, claim: nil, leased_until: nil, last_error: error.message[0, 500]) }
    rescue Stopped
      nil # cancelled, or replaced by a newer file
    rescue ActiveRecord::ActiveRecordError
      raise # another try is made when the lease is over
    rescue
      # Our fault; the file must not be tried for ever.
      write { @mine.update_all(state: "failed", incoming: nil, claim: nil, leased_until: nil, last_error: "This calendar could not be read; the fault is on our side.") }
      raise
    end

    private

    # UIDs of our own invitations, which count by themselves.
    def ours = /@#{Regexp.escape(Settings.mail_domain)}\z/i

    def tell_now_and_then(done)
      at = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      return if at - @told_at < TELL_EVERY_S

      @told_at = at
      tell(done: done)
    end

    def tell(**progress)
      raise Stopped if write { @mine.update_all(leased_until: @clock.now + LEASE_S, **progress) }.zero?
    end
  end
end
