module UseCases
  # Tries of passwords, counted before they are made, so that many at the same moment do not pass together. Counted are
  # the account and the network they come from together, and, far higher, each alone; a browser in which somebody has
  # signed in before counts for itself, and is let through whatever others do.
  class Tries < Base
    # @param account [String] the address tried, whosever it is
    # @param from [String] the address of the other end
    # @param browser [String, nil] key of a browser this account has signed in with before
    # @yieldreturn [Object, nil] nil when the try was wrong
    # @return [Object] what the block gave
    # @raise [Core::TooMany]
    def at(account, from:, browser: nil)
      pair, *common = counted(account, Core::Tries.network(from), browser)
      begin_try(pair, common)
      yield&.tap { forget(pair, common) }
    end

    # For the worker.
    def sweep = Records::Try.where("expires_at < ?", now).in_batches(of: 1_000).delete_all

    private

    def counted(account, network, browser)
      return [[:browser, browser, account]] if browser && known?([:browser, browser, account])

      [[:pair, account, network], [:account, account], [:network, network]]
    end

    # Whoever has the cookie of a known browser may guess with it too, and is as others then.
    def known?(what)
      Records::Try.where(id: id(what)).where("expires_at > ?", now).pick(:number).to_i < Core::Tries::MOST[:browser]
    end

    # The row that waits is locked last, so that the common ones are held for a moment only.
    def begin_try(pair, common) = write do
      common.each { |what| count(what) { |row| refuse_more(row, Core::Tries::MOST.fetch(what.first)) } }
      count(pair) do |row|
        refuse_waiting(row)
        row.wait_until = now + Core::Tries.wait_s(row.number + 1) if pair.first == :pair
      end
    end

    def count(what)
      Records::Try.insert({id: id(what), number: 0, expires_at: now + Core::Tries::KEPT_S})
      row = Records::Try.lock.find(id(what))
      row.assign_attributes(number: 0, wait_until: nil) if row.expires_at <= now
      yield row
      row.update!(number: row.number + 1, expires_at: now + Core::Tries::KEPT_S)
    end

    def refuse_more(row, most)
      raise Core::TooMany.new(retry_after_s: (row.expires_at - now).ceil) if row.number >= most
    end

    def refuse_waiting(row)
      raise Core::TooMany.new(retry_after_s: (row.wait_until - now).ceil) if row.wait_until && row.wait_until > now
    end

    # Only what failed counts.
    def forget(pair, common) = write do
      Records::Try.where(id: id(pair)).delete_all
      Records::Try.where(id: common.map { |what| id(what) }).where("number > 0").update_all("number = number - 1")
    end

    # What is tried is not written down.
    def id(what) = Settings.seal("tries", what.join("|"))
  end
end
