require_relative "../api_helper"

# What stands behind the question mark is held against the contract, as bodies are.
RSpec.describe "Queries", :timeless do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let(:week) { series(marit, {}) }
  let(:meeting) { meeting_ids(week).first }

  before { sign_in(marit) }

  with_query = Api::Contract::OPERATIONS.select { |name, (method, _)| method == "get" && Api::Contract.query(name).any? }
  odd = ["x[]=1&x[]=2", "x[a]=1", "x=-1", "x=99999999999999999999999999", "x=%E2%80%AE", "x=#{"9" * 3_000}", "x=1e9",
    "x=0x10", "x=%20", "x=nul%C3%A5"]

  def path_of(path)
    kinds = {"series" => week, "meetings" => meeting, "people" => marit}
    ids = path.gsub("{id}") { kinds.fetch(path.split("/")[1], key) }
    ids.gsub("{personId}", marit).gsub("{token}", "0" * 40)
  end

  it "that no operation knows are refused" do
    call(:get, "/actions?whose=all&colour=red")
    expect([status, JSON.parse(last_response.body)["errors"]])
      .to eq [400, [{"pointer" => "/colour", "detail" => "This is not known here."}]]
    expect(call(:get, "/actions?whose=&seriesId=").then { status }).to eq 200 # nothing given
  end

  it "are declared with type and range, for all that the routes read" do
    with_query.each_key do |name|
      Api::Contract.query(name).each_value do |one|
        shape = one["schema"]
        bounded = shape["$ref"] || shape["enum"] || shape["format"] || shape["pattern"] || shape["maxLength"] ||
          (shape["type"] == "integer" && shape["minimum"] && shape["maximum"])
        expect(bounded).to be_truthy, "#{name} #{one["name"]}"
      end
    end
  end

  with_query.each do |name, (_, path)|
    it "of #{name} are refused where they are not as declared, and never break it" do
      Api::Contract.query(name).each_key do |parameter|
        odd.each do |text|
          others = Api::Contract.query(name).values.select { |one| one["required"] && one["name"] != parameter }
          given = others.map { |one| "#{one["name"]}=#{(one["name"] == "month") ? "2027-01" : "UTC"}" }
          get "/api#{path_of(path)}?#{[text.gsub("x", parameter), *given].join("&")}"
          expect(status).to(satisfy { |code|
            [200, 400, 404, 422].include?(code)
          }, "#{text.gsub("x", parameter)}: #{status}")
          expect(JSON.parse(last_response.body)["errors"]&.first).to include "detail" if status == 400
        end
      end
    end
  end
end
