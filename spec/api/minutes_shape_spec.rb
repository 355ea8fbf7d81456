require_relative "../api_helper"

# Issued minutes stay as they were frozen (docs/decisions/0025). Each shape there has been is held against today's
# contract, as the browser will be given it.
RSpec.describe "Minutes of an earlier shape" do
  let(:marit) { person("Marit Hauge") }

  Dir[File.expand_path("../reference/minutes/*.json", __dir__)].each do |path|
    it "fit the contract of today: #{File.basename(path, ".json")}" do
      content = JSON.parse(File.read(path))
      meeting = meeting_ids(series(marit)).first
      Records::Meeting.where(id: meeting).update_all(state: "issued", issued_at: clock.now)
      Records::MinutesVersion.create!(
        meeting_id: meeting, number: 1, issued_by_id: marit, issued_at: clock.now, content: content
      )
      sign_in(marit)
      shown = call(:get, "/meetings/#{meeting}")
      expect(shown["topics"].map { |topic| topic["title"] }).to eq(content["topics"].map { |topic| topic["title"] })
      expect(shown["seriesTitle"]).to eq content["series_title"]
    end
  end
end
