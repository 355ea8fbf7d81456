module UseCases
  # Links to choose a password, for those who have forgotten theirs. Asking writes down the address and nothing else,
  # whoever has it; the worker looks whose it is. So how long an answer takes tells nobody who has an account.
  class LinkWishes < Base
    KEPT_S = 86_400

    def self.queue(clock: Clock) =
      Queue.new(Records::LinkWish, aside: {state: "set_aside"}, error: :error, clock: clock)

    def ask(email:)
      write { Records::LinkWish.create!(email: Core::MailAddress.normal(email)[0, 254], created_at: now) }
    end

    # For the worker. @return [Boolean] whether there was one
    def work_next
      queue = LinkWishes.queue(clock: @clock)
      queue.work(Records::LinkWish.waiting(now).order(:created_at, :id)) do |wish|
        SignIns.new(clock: @clock).forgotten(email: wish.email)
        queue.settle(wish, state: "done")
      end.positive?
    end

    def sweep = Records::LinkWish.where("created_at < ?", now - KEPT_S).in_batches(of: 500).delete_all
  end
end
