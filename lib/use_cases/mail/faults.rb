module UseCases
  # Lets each step of the work that comes round stand alone: what fails is noted and the next goes on; what has failed
  # three times is left alone for a day, or until an admin has everything tried again.
  class Faults < Base
    REST_S = 86_400

    # @param alive [Proc] told before each step, so that whoever watches sees it going on
    def initialize(alive: nil, **rest)
      super(**rest)
      @alive = alive
    end

    # @param subject_id [String] what it is about, where it is about one thing
    # @return what the block gives; nil where it failed or was left out
    def attempt(step, subject_id = "")
      @alive&.call
      known = resting.fetch([step, subject_id], nil)
      return if known

      yield.tap { forget(step, subject_id) if noted.include?([step, subject_id]) }
    rescue *Queue::AWAY
      raise
    rescue *Queue::FAULTS => error
      note(step, subject_id, error)
      nil
    end

    # Everything once more, now.
    def try_again
      Outbox.queue(clock: @clock).again(Records::Mail.set_aside.ids, state: "waiting", due_at: now)
      IncomingMails.queue(clock: @clock).again(Records::IncomingMail.set_aside.ids, state: "waiting")
      Calendars.queue(clock: @clock).again(
        Records::Calendar.set_aside.ids, state: "waiting", incoming: Arel.sql("coalesce(incoming, source)")
      )
      Calls.queue(clock: @clock).again(Records::Call.set_aside.ids, state: "wanted", due_at: now)
      write { Records::Fault.delete_all }
    end

    private

    # Both read once for all steps of a round.
    def resting =
      @resting ||=
        Records::Fault
          .where("tries >= ? and failed_at > ?", Core::Retries::MOST_TRIES, now - REST_S)
          .pluck(:step, :subject_id)
          .index_with(true)

    def noted = @noted ||= Records::Fault.pluck(:step, :subject_id).to_set

    def forget(step, subject_id) = write { Records::Fault.where(step: step, subject_id: subject_id).delete_all }

    def note(step, subject_id, error)
      write do
        fault = Records::Fault.find_or_initialize_by(step: step, subject_id: subject_id)
        fault.update!(tries: fault.tries + 1, error: Queue.words(error), failed_at: now)
      end
    end
  end
end
