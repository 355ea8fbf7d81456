module UseCases
  # Work that waits in a table, for any number of workers. A row is claimed under a fresh token by a conditional update
  # and leased; the lease is renewed while work goes on, and whoever comes after a dead worker takes over when it is
  # out. Each row stands alone: whatever it does to the worker is noted at it, and what fails three times is set aside
  # for an admin to see.
  class Queue < Base
    LEASE_S = 60
    RENEW_S = 20
    # Beside errors, what a hostile mail or file may raise: endless nesting, no memory left.
    FAULTS = [StandardError, SystemStackError, NoMemoryError].freeze
    # The database is away: nobody's fault, and nothing can be noted either.
    AWAY = [
      ActiveRecord::ConnectionFailed, ActiveRecord::ConnectionNotEstablished, ActiveRecord::ConnectionTimeoutError
    ].freeze

    # @param records [Class] of a table with claim, leased_until and tries
    # @param aside [Hash] what marks a row that is set aside
    # @param error [Symbol] the column that says why
    def initialize(records, aside:, error: :last_error, **rest)
      super(**rest)
      @records = records
      @aside = aside
      @error = error
    end

    # What is wrong with it, short and without what may stand in it.
    def self.words(error) =
      "#{error.class}: #{error.message.to_s.dup.force_encoding("UTF-8").scrub.lines.first.to_s.strip}"[0, 500]

    # Claims some rows and yields each; the block says what becomes of it by `settle`.
    # @param due [ActiveRecord::Relation] what may be claimed, in order; what has failed before comes after the rest
    # @param marks [Hash] what a claimed row is marked with
    # @return [Integer] how many rows were claimed
    def work(due, limit: 1, **marks)
      token, ids = claim(due, limit, marks)
      renewing(token) { ids.each { |id| one(id, token) { |row| yield row } } } if ids.any?
      ids.size
    end

    # Only the holder of the claim may settle. @return [Boolean] whether it still was
    def settle(row, **outcome)
      write do
        @records.where(id: row.id, claim: row.claim).update_all(claim: nil, leased_until: nil, tries: 0, **outcome)
      end.positive?
    end

    # Sends what was set aside round again.
    def again(ids, **marks) = write do
      @records.where(id: ids).update_all(tries: 0, claim: nil, leased_until: nil, **{@error => nil}, **marks)
    end

    private

    # Another worker may take all of it between our look and our claim; then there may be more behind it.
    def claim(due, limit, marks)
      token = Records::Key.make(@clock.now)
      loop do
        ids = due.reorder(:tries, *due.order_values).limit(limit).pluck(:id)
        return token, ids if ids.empty?
        claimed = write do
          due.unscope(:order).where(id: ids).update_all(claim: token, leased_until: @clock.now + LEASE_S, **marks)
        end
        next if claimed.zero?

        return [token, ids & @records.where(claim: token).pluck(:id)]
      end
    end

    # Begun is counted before anything is done, so that a row which ends the process is known by it.
    def one(id, token)
      mine = @records.where(id: id, claim: token)
      return if write { mine.update_all("tries = tries + 1") }.zero?

      row = mine.first or return
      if row.tries > Core::Retries::MOST_TRIES
        return set_aside(row, "It has ended the worker #{Core::Retries::MOST_TRIES} times.")
      end

      yield row
    rescue *AWAY
      raise
    rescue *FAULTS => error
      failed(row, error)
    end

    def failed(row, error)
      words = Queue.words(error)
      return set_aside(row, words) if Core::Retries.enough?(row.tries)

      write do
        @records.where(id: row.id, claim: row.claim).update_all(
          claim: nil, leased_until: @clock.now + Core::Retries.pause_s(row.tries), **{@error => words}
        )
      end
    end

    def set_aside(row, words) = write do
      @records.where(id: row.id, claim: row.claim).update_all(
        claim: nil, leased_until: nil, **{@error => words}, **@aside
      )
    end

    # In a thread of its own, since one row may take longer than a lease.
    def renewing(token)
      done = Concurrent::Event.new
      thread = Thread.new do
        until done.wait(RENEW_S)
          @records.where(claim: token).update_all(leased_until: @clock.now + LEASE_S)
        end
      rescue *AWAY
        retry
      end
      yield
    ensure
      done.set
      thread.join
    end
  end
end
