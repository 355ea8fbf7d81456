# What goes on without anybody waiting. Each kind of work goes round in a thread of its own, so that none holds up
# another: handing over mail, judging mail that came in, fetching and reading calendars, and what has to be looked for
# now and then.
class Worker
  PAUSE_S = 0.5
  SWEEP_EVERY_S = 60
  CHANGES_KEPT_S = 3_600
  # What was typed without a connection may be sent as late as that and still be known.
  KEYS_KEPT_S = 90 * 86_400

  def initialize(
    post: Mailing::Smtp.new(Settings.smtp), texts: Settings.texts && Mailing::Smpp.new(Settings.texts),
    fetcher: Fetching.new, calls: CallService.new, clock: Clock, log: $stderr, heartbeat: Heartbeat.new(Settings.beats)
  )
    @post = post
    @texts = texts
    @fetcher = fetcher
    @calls = calls
    @clock = clock
    @log = log
    @heartbeat = heartbeat
    @swept_at = Time.at(0)
  end

  # Until `stop`.
  def run
    work = {mail: :deliver, incoming: :judge, fetching: :fetch, reading: :read, calls: :tell_of_calls,
            sweep: :sweep_when_due}
    work.map { |name, step| Thread.new { go_round(name) { send(step) } } }.each(&:join)
  ensure
    close
  end

  def stop = @stopped = true

  # Sends a batch of mail. @return [Boolean] whether there was any
  def deliver
    UseCases::LinkWishes.new(clock: @clock).work_next
    tried = UseCases::Outbox.new(clock: @clock).deliver(@post, texts: @texts) { alive(:mail) }
    close if tried.zero?
    tried.positive?
  end

  def judge = UseCases::IncomingMails.new(clock: @clock).read_next

  def fetch = UseCases::Calendars.new(clock: @clock).fetch_next(@fetcher)

  def read = [UseCases::FileReadings, UseCases::Calendars].map { |kind| kind.new(clock: @clock).read_next }.any?

  def tell_of_calls = UseCases::Calls.new(service: @calls, clock: @clock).work_next

  # Each step stands alone: what is wrong with one holds up no other.
  def sweep
    @swept_at = @clock.now
    faults = UseCases::Faults.new(clock: @clock, alive: -> { alive(:sweep) })
    steps(faults).each { |name, step| faults.attempt(name, &step) }
  end

  private

  def steps(faults)
    {
      "reminders" => -> { UseCases::Reminders.new(clock: @clock).put_due(faults) },
      "reminding_of_actions" => -> { UseCases::ActionReminders.new(clock: @clock).put_due(faults) },
      "meetings_with_nothing_on_them" => -> { UseCases::EmptyMeetings.new(clock: @clock).put_due(faults) },
      "laying_out_dates" => -> { UseCases::LayingOut.new(clock: @clock).lay_out_further(faults) },
      "calendars" => -> { UseCases::Calendars.new(clock: @clock).renew(faults) },
      "meetings_from_elsewhere" => -> { UseCases::OutsideMeetings.new(clock: @clock).renew(faults) },
      "calls" => -> { UseCases::Calls.new(clock: @clock).sweep(faults) },
      "renewing_calls" => -> { UseCases::CallRenewal.new(clock: @clock).mend(faults) },
      "trying_calls" => -> { UseCases::TryingCalls.new(clock: @clock).put_due(faults) },
      "preparing" => -> { UseCases::Preparations.new(clock: @clock).tell_changes(faults) },
      "asking" => -> { UseCases::PollTimes.new(clock: @clock).put_due(faults) },
      "bookings" => -> { UseCases::Bookings.new(clock: @clock).sweep },
      "holds" => -> { UseCases::Holds.new(clock: @clock).release_expired },
      "reports" => -> { UseCases::IncomingMails.new(clock: @clock).sweep },
      "files" => -> { UseCases::FileReadings.new(clock: @clock).sweep },
      "counts" => -> { UseCases::Counts.new(clock: @clock).sweep },
      "links_into_calls" => -> { UseCases::CallLinks.new(clock: @clock).sweep },
      "tries" => -> { UseCases::Tries.new(clock: @clock).sweep },
      "links_asked_for" => -> { UseCases::LinkWishes.new(clock: @clock).sweep },
      "writers" => -> { UseCases::Writers.new(clock: @clock).sweep },
      "search" => -> { Records::SearchText.keep_all_once },
      "keys" => -> do
        Records::MadeKey.where("created_at < ?", @clock.now - KEYS_KEPT_S).in_batches(of: 1_000).delete_all
      end,
      "sign_ins" => -> { UseCases::SignIns.new(clock: @clock).sweep },
      "changes" => -> do
        Records::Change.where("changed_at < ?", @clock.now - CHANGES_KEPT_S).in_batches(of: 1_000).delete_all
      end
    }
  end

  def sweep_when_due
    return false if @clock.now - @swept_at < SWEEP_EVERY_S

    sweep
    true
  end

  # Whatever goes wrong, a failure of the database included, the next round is made.
  def go_round(name)
    until @stopped
      alive(name)
      begin
        sleep PAUSE_S unless yield
      rescue *UseCases::Queue::FAULTS => error
        @log.puts "worker #{name}: #{UseCases::Queue.words(error)}"
        sleep PAUSE_S
      end
    end
  end

  def alive(name) = @heartbeat.beat("worker.#{name}")

  def close = [@post, @texts].compact.each(&:close)
end
