module UseCases
  # What an owner says by their private link.
  class ActionLinks
    # @param link [Loading::ActionLink]
    def initialize(link, clock: Clock)
      @link = link
      @actions = Actions.new(by: link.person_id, clock: clock)
    end

    # A word, whether it will not be done by then, and whether it is done.
    # @param id [String] key of what is said; a repeated call changes nothing
    # @param state [String] open or done
    def say(id:, state:, text: nil, delayed: false)
      Records::Base.write do
        if delayed || !text.to_s.strip.empty?
          @actions.note(id: id, action_id: @link.action_id, text: text, delayed: delayed)
        end
        @actions.move(id: @link.action_id, state: state) if ours?
      end
    end

    private

    # What was dropped or handed over is not for its owner to open again.
    def ours? = Records::ActionItem.exists?(id: @link.action_id, state: %w[open done])
  end
end
