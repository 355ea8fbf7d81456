require "securerandom"

module UseCases
  # The calls of series and meetings: which there are to be, and the call service told of them. What the service was
  # told last is compared with what holds now, as invitations are.
  class Calls < Base
    # Fresh calls are made so long before their meeting.
    AHEAD_S = 60 * 86_400
    # How often a call is looked at while its meeting is near, and else.
    NEAR_S = 60
    NEAR_BEFORE_S = 2 * 86_400
    FAR_S = 6 * 3_600
    LONGEST_PAUSE_S = 300

    def initialize(service: nil, **rest)
      super(**rest)
      @service = service
    end

    # Sees to it that the calls that should be there are wanted, and that all of a series are looked at soon. The series
    # is locked, so that two who see one missing do not both make it. Inside a transaction.
    def want(series_id)
      series = Records::Series.lock.find_by(id: series_id) or return
      missing = fresh(Records::Meeting.where(series_id: series_id)).pluck(:id)
      missing << nil if standing(Records::Series.where(id: series_id)).any?
      missing.each { |meeting_id| make(series, meeting_id) }
      standing = Records::Call.standing.where(series_id: series_id)
      standing.update_all(due_at: now, renewal: series.call_renewal)
      number_as_wanted(standing, series.call_dial)
    end

    # Another link for all calls of a series, and another passcode; the earlier ones end at once.
    # @param renewal [Integer] the one that is replaced, so that a press that comes twice renews once
    def renew(series_id:, renewal:)
      write do
        series = find(Records::Series.lock, series_id)
        next if series.call_renewal != renewal
        next unless Records::Series::OURS.include?(series.call_kind) || own?(series)

        series.update!(call_renewal: renewal + 1)
        forget(Records::Call.standing.where(series_id: series_id))
        want(series_id)
        Records::Event.note("changed", "Link of the call renewed", series_id: series_id, now: now, person_id: by)
      end
    end

    # What should be there after dates were laid out or changed.
    def sweep(faults)
      lacking = fresh(Records::Meeting.all).distinct.pluck(:series_id) + standing(Records::Series.all).pluck(:id)
      lacking.uniq.each { |id| faults.attempt("calls", id) { write { want(id) } } }
    end

    # Tells the service of one call. @return [Boolean] whether there was any
    def work_next
      return false unless @service&.any?

      queue.work(Records::Call.due(now).order(:due_at, :id), limit: 5) { |call| tell(call) }.positive?
    end

    def self.queue(clock: Clock) = Queue.new(Records::Call, aside: {state: "set_aside"}, clock: clock)

    private

    def queue = @queue ||= Calls.queue(clock: @clock)

    def own?(series) = series.meetings.where(own_where: true, call_kind: "fresh").exists?

    def passcode = format("%06d", SecureRandom.random_number(10**6))

    def make(series, meeting_id)
      Records::Call.create!(
        id: Records::Key.make(now), series_id: series.id, meeting_id: meeting_id, passcode: passcode,
        renewal: series.call_renewal, due_at: now, created_at: now, wanted_at: now
      )
    end

    # What was told of them is worth nothing from now on, and nothing is told until the service has answered.
    def forget(calls)
      calls.find_each do |call|
        call.update!(passcode: passcode, url: nil, number: nil, pin: nil, state: "wanted", wanted_at: now)
      end
    end

    # A number is told as long as it is wanted, and waited for where it is not there yet.
    def number_as_wanted(calls, wanted)
      return calls.where.not(number: nil).update_all(number: nil, pin: nil) unless wanted

      calls.where(state: "made", number: nil).update_all(state: "wanted", wanted_at: now)
    end

    # Meetings that are to have a call of their own and have none yet.
    def fresh(meetings)
      having = Records::Call.standing.where.not(meeting_id: nil).select(:meeting_id)
      meetings.coming(now).joins(:series).where("meetings.starts_at < ?", now + AHEAD_S).where.not(id: having)
        .where("if(meetings.own_where, meetings.call_kind, series.call_kind) = 'fresh'")
    end

    def standing(series)
      having = Records::Call.standing.where(meeting_id: nil).select(:series_id)
      series.where(call_kind: "standing").where.not(id: having)
    end

    def tell(call)
      wish = Loading::CallWish.new(call, now: now)
      plain = wish.to_h
      return give_up(call) unless plain

      digest = wish.digest
      made = (digest == call.told_digest) ? {} : made(call, plain).merge(told_digest: digest)
      reports = read_reports(call)
      write { CallNumbers.new(clock: @clock).come(call) } if call.state == "wanted" && made.any?
      done(call, due_at(wish), state: "made", last_error: nil, attempts: 0, reports_read: reports, **made)
    rescue CallService::Away => error
      attempts = call.attempts + 1
      pause_s = [2**[attempts, 10].min, LONGEST_PAUSE_S].min
      done(call, now + pause_s, attempts: attempts, last_error: error.message[0, 500])
    end

    # Whoever wanted it looked at again meanwhile has it looked at again.
    def done(call, due_at, **outcome)
      write { Records::Call.where(id: call.id, due_at: call.due_at).update_all(due_at: due_at) }
      queue.settle(call, **outcome)
    end

    def made(call, wish)
      answer = @service.put(call.id, wish)
      answer.slice("url", "number", "pin").transform_keys(&:to_sym)
        .merge(number: answer["number"], pin: answer["pin"], made_at: call.made_at || now)
    end

    def give_up(call)
      @service.end_call(call.id)
      queue.settle(call, state: "ended", last_error: nil)
    end

    # What was reported and did not arrive. @return [Integer] number of the last report read
    def read_reports(call)
      return call.reports_read unless call.made_at

      found = @service.reports(call.id, after: call.reports_read)
      return call.reports_read unless found.is_a?(Array)

      taking = CallReports.new(clock: @clock)
      found.each { |report| taking.take(report) }
      found.map { |report| report["number"] }.max || call.reports_read
    end

    # At each of its turns, and now and then in between.
    def due_at(wish)
      turns = wish.turns
      near = turns.any? { |at| (at - now).abs < NEAR_BEFORE_S }
      [now + (near ? NEAR_S : FAR_S), *turns.select { |at| at > now }].min
    end
  end
end
