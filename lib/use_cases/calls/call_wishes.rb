module UseCases
  # What a form says of a call, as columns of a series or meeting.
  module CallWishes
    NONE = {call_kind: "none", call_dial: false, call_url: nil, call_passcode: nil, call_dial_in: nil}.freeze
    POINTERS = {url: "/call/url", passcode: "/call/passcode", dial_in: "/call/dialIn"}.freeze

    module_function

    # @param call [Hash] kind (none, own, standing or fresh), url, passcode, dial_in and dial; without a kind it is a
    #   link of one's own, if there is one
    # @raise [Core::Invalid]
    def read(call)
      return ours(call) if Records::Series::OURS.include?(call[:kind])
      return NONE if call[:kind] == "none"

      given = POINTERS.to_h { |name, _| [name, call[name].to_s.strip.then { |text| text unless text.empty? }] }
      online = Core::Invitation::Call.read(**given, pointers: POINTERS)
      return none_given(call) unless online

      NONE.merge(call_kind: "own", call_url: online.url, call_passcode: online.passcode, call_dial_in: online.dial_in)
    end

    def ours(call)
      return NONE.merge(call_kind: call[:kind], call_dial: call[:dial] || false) if Settings.calls

      raise Core::Invalid.new("No call service is set up here. Give a link of your own.", pointer: "/call/kind")
    end

    def none_given(call)
      return NONE unless call[:kind] == "own"

      raise Core::Invalid.new("Give the link of the call, or a number to dial.", pointer: "/call/url")
    end
  end
end
